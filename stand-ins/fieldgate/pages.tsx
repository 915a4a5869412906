import { Folded } from '../shared/folded';
import { page } from '../shared/page';
import { SEEK, stamp } from '../shared/seek';
import { FOLD } from './rules';
import type { Work } from './work';

export const STYLE = `
:root{--slate:#22262b;--chalk:#f3f4f1;--moss:#3c5f2f;--ash:#5d646b}
*{box-sizing:border-box;margin:0}
body{background:var(--chalk);color:var(--slate);font:16px/1.55 "Liberation Sans","DejaVu Sans",sans-serif}
a{color:var(--moss)}
.gate{border-bottom:3px solid var(--slate);padding:16px 32px;display:flex;justify-content:space-between;font-weight:700;letter-spacing:.18em;text-transform:uppercase;font-size:14px}
.gate a{letter-spacing:0;text-transform:none;font-weight:400}
.stage{background:var(--slate)}.stage video{display:block;width:100%;max-width:1080px;margin:0 auto;aspect-ratio:16/9}
.sheet{max-width:560px;margin:56px auto;background:#fff;border:1px solid var(--slate);padding:32px 36px}
.brand{font-weight:700;letter-spacing:.18em;text-transform:uppercase;font-size:13px;margin-bottom:12px}
.work{max-width:1080px;margin:0 auto;padding:26px 32px 60px;display:grid;grid-template-columns:minmax(0,1fr) 280px;gap:48px}
h1{font-size:30px;line-height:1.2;margin-bottom:6px}h2{font-size:14px;letter-spacing:.12em;text-transform:uppercase;margin:18px 0 6px}
.by,.fine{color:var(--ash)}.about{white-space:pre-wrap;overflow-wrap:anywhere;margin-top:14px}
.bar{display:flex;gap:3px;max-width:1080px;margin:0 auto;padding:8px 0}.bar button{flex:1;border:0;background:#4a5158;color:#fff;font:inherit;font-size:13px;padding:5px 8px;text-align:left;cursor:pointer;overflow:hidden;white-space:nowrap;text-overflow:ellipsis}
dl{display:grid;grid-template-columns:100px 1fr;gap:3px 12px}dt{color:var(--ash)}
.words{color:var(--ash);font-size:14px}
.pick{display:flex;gap:12px;padding:8px 0;border-top:1px solid #cfd2cc}.pick input{accent-color:var(--moss);width:20px;height:20px;margin-top:3px}
.sheet li{margin:3px 0}.fine{font-size:14px;margin:14px 0}.answers{display:flex;gap:10px;flex-wrap:wrap}
.answers button{font:600 15px inherit;background:var(--moss);color:#fff;border:0;padding:11px 18px;cursor:pointer}
.answers .quiet{background:none;color:var(--moss);box-shadow:inset 0 0 0 1px var(--moss)}
.person{display:flex;flex-direction:column;width:100%;text-align:left;font:inherit;background:none;border:1px solid #cfd2cc;padding:12px 16px;margin-top:10px;cursor:pointer}.person span{color:var(--ash)}
@media(max-width:760px){.work{grid-template-columns:minmax(0,1fr);gap:10px;padding:20px}.gate{padding:16px 20px}}
`;

interface Shown {
  work: Work;
  portfolio: string;
  chapters: { seconds: number; title: string }[];
  collections: { id: string; title: string }[];
  /** Of captions. */
  languages: string[];
}

/** The page of a work. */
export function workPage({ work, portfolio, chapters, collections, languages }: Shown): string {
  const playable = work.stage === 'ready' || work.stage === 'full';
  const day = new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', timeZone: 'UTC' });
  return page(
    `${work.headline} · Fieldgate`,
    STYLE,
    <>
      <header className="gate">
        Fieldgate <a href={`/portfolio/${work.channelId}`}>{portfolio}</a>
      </header>
      <div className="stage">
        {playable ? (
          // biome-ignore lint/a11y/useMediaCaption: captions are shown where the work has any
          <video controls preload="metadata" poster={`/work/${work.id}/thumbnail`} src={`/work/${work.id}/video.mp4`}>
            {languages.map((language) => (
              <track key={language} kind="captions" srcLang={language} src={`/work/${work.id}/captions/${language}`} />
            ))}
          </video>
        ) : (
          <p style={{ color: '#fff', padding: 40 }}>This work is being prepared.</p>
        )}
        {chapters.length > 0 && (
          <div className="bar">
            {chapters.map((chapter) => (
              <button key={chapter.seconds} type="button" data-seek={chapter.seconds}>
                {stamp(Math.floor(chapter.seconds))} {chapter.title}
              </button>
            ))}
          </div>
        )}
      </div>
      <main className="work">
        <div>
          <h1>{work.headline}</h1>
          <p className="by">
            {portfolio} · {day.format(new Date(work.publishedAt ?? work.createdAt))}
            {work.audience === 'address' && ' · by its address only'}
            {work.audience === 'password' && ' · with a password'}
            {work.audience === 'me' && ' · only you see this'}
          </p>
          <Folded className="about" text={work.about} rule={FOLD} />
        </div>
        <aside>
          {work.credits.length > 0 && <h2>Credits</h2>}
          <dl>
            {work.credits.map(({ role, name }) => (
              <div key={`${role}${name}`} style={{ display: 'contents' }}>
                <dt>{role}</dt>
                <dd>{name}</dd>
              </div>
            ))}
          </dl>
          {collections.length > 0 && <h2>Collections</h2>}
          {collections.map(({ id, title }) => (
            <p key={id}>{title}</p>
          ))}
          {languages.length > 0 && <p className="words">Captions: {languages.join(', ')}</p>}
          {work.keywords.length > 0 && <h2>Keywords</h2>}
          <p className="words">
            {work.keywords.map((word) => (
              <span key={word} style={{ marginRight: 12 }}>
                {word}
              </span>
            ))}
          </p>
        </aside>
      </main>
      {/* biome-ignore lint/security/noDangerouslySetInnerHtml: the script is our own constant */}
      <script dangerouslySetInnerHTML={{ __html: SEEK }} />
    </>,
  );
}

/** What somebody sees who may not. */
export function shutPage(): string {
  return page(
    'Shut · Fieldgate',
    STYLE,
    <main className="sheet">
      <p className="brand">Fieldgate</p>
      <h1>This gate is shut</h1>
      <p>The work is kept to its owner, or it is gone.</p>
    </main>,
  );
}

/** Asks for the password of a work. @param wrong whether another was said before */
export function askPage(id: string, wrong = false): string {
  return page(
    'Password · Fieldgate',
    STYLE,
    <main className="sheet">
      <p className="brand">Fieldgate</p>
      <h1>This work has a password</h1>
      <form method="post" action={`/work/${id}/password`}>
        <p>
          <label>
            Password <input name="password" type="password" required maxLength={100} />
          </label>
        </p>
        {wrong && <p>That was not it. Try again.</p>}
        <p>
          <button type="submit">Open the gate</button>
        </p>
      </form>
    </main>,
  );
}

/** A portfolio with what is public in it. */
export function portfolioPage(name: string, works: Work[]): string {
  return page(
    `${name} · Fieldgate`,
    STYLE,
    <>
      <header className="gate">Fieldgate</header>
      <main className="work">
        <div>
          <h1>{name}</h1>
          <ul>
            {works.map((work) => (
              <li key={work.id}>
                <a href={`/work/${work.id}`}>{work.headline}</a>
              </li>
            ))}
          </ul>
        </div>
      </main>
    </>,
  );
}
