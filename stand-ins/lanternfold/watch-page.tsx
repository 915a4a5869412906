import { Folded } from '../shared/folded';
import { page } from '../shared/page';
import { SEEK, stamp } from '../shared/seek';
import { FOLD } from './rules';
import type { Chapter, Video } from './video';

export const STYLE = `
:root{--night:#16323a;--sand:#f7f0dd;--flame:#9f4511;--reed:#3e5b46;--mist:#5c6b6a}
*{box-sizing:border-box;margin:0}
body{background:var(--sand);color:#1d2a2c;font:16px/1.5 Georgia,"DejaVu Serif",serif}
a{color:var(--flame)}
.mast{padding:18px 24px;display:flex;gap:12px;align-items:baseline;background:var(--night);color:var(--sand)}
.mast b{font-size:20px;letter-spacing:.04em}.mast a{color:#f3c98b;margin-left:auto}
.watch{max-width:1080px;margin:0 auto;padding:22px 24px 60px}
.watch h1{font-size:29px;line-height:1.2;margin-bottom:4px}.by{color:var(--mist);margin-bottom:16px}
video{width:100%;background:#0b191d;display:block;border-radius:4px}
.under{display:grid;grid-template-columns:1fr 300px;gap:34px;margin-top:20px}
.text{white-space:pre-wrap;overflow-wrap:anywhere}
.text button{font:inherit;color:var(--flame);background:none;border:0;padding:0;text-decoration:underline;cursor:pointer}
.parts{list-style:none;padding:0;counter-reset:part}.parts li{border-top:1px solid #d9ceb0}
.parts button{width:100%;display:flex;gap:12px;text-align:left;font:inherit;background:none;border:0;padding:7px 0;cursor:pointer;color:inherit}
.parts button span{color:var(--flame);min-width:54px;font-variant-numeric:tabular-nums}
.tags{display:flex;flex-wrap:wrap;gap:6px 14px;margin-top:18px;color:var(--reed);font-style:italic}
h2{font-size:17px;margin:0 0 8px}.aside p{color:var(--mist);margin-bottom:14px;font-size:15px}
.said{list-style:none;padding:0;margin-bottom:14px;color:var(--mist);font-size:15px}.said li{border-top:1px solid #d9ceb0;padding:4px 0}
.aside img{width:100%;border-radius:4px;margin-bottom:14px;display:block}
.sheet{max-width:520px;margin:60px auto;background:#fffaf0;padding:34px 38px;border-radius:6px;border-top:6px solid var(--night)}
.brand{color:var(--flame);letter-spacing:.06em;margin-bottom:8px}.sheet h1{font-size:25px;margin-bottom:14px}.sheet h2{margin-top:18px}
.sheet li{margin:3px 0}.pick{display:flex;gap:12px;padding:8px 0;border-top:1px solid #e5dabd}.pick input{accent-color:var(--flame);width:20px;height:20px;margin-top:3px}
.fine{color:var(--mist);font-size:14px;margin:14px 0}.answers{display:flex;gap:10px;flex-wrap:wrap}
.answers button{font:600 15px Georgia,serif;background:var(--flame);color:#fff;border:0;padding:11px 18px;border-radius:4px;cursor:pointer}
.answers .quiet{background:none;color:var(--flame);box-shadow:inset 0 0 0 1px var(--flame)}
.person{display:flex;flex-direction:column;width:100%;text-align:left;font:inherit;background:none;border:1px solid #d9ceb0;border-radius:4px;padding:12px 16px;margin-top:10px;cursor:pointer}
.person span{color:var(--mist)}
@media(max-width:760px){.under{grid-template-columns:1fr}}
`;

function Lines({ text, chapters }: { text: string; chapters: Chapter[] }) {
  return (
    <>
      {text.split('\n').map((line, index) => {
        const found = chapters.find((chapter) => line.includes(stamp(chapter.seconds)) && line.includes(chapter.title));
        const key = index;
        if (!found) return <span key={key}>{`${line}\n`}</span>;
        return (
          <span key={key}>
            <button type="button" data-seek={found.seconds}>
              {stamp(found.seconds)}
            </button>
            {` ${found.title}\n`}
          </span>
        );
      })}
    </>
  );
}

interface Watched {
  video: Video;
  chapters: Chapter[];
  channel: string;
  category: string | undefined;
  playlists: { id: string; title: string }[];
  /** Of captions. */
  languages: string[];
}

const COMMENTS: Record<string, string> = {
  open: 'Comments are open',
  'hold-doubtful': 'Doubtful comments are held',
  'hold-all': 'Comments are held until they are read',
  off: 'Comments are off',
};

const regions = new Intl.DisplayNames('en', { type: 'region' });

function shownWhere({ way, countries }: NonNullable<Video['shownIn']>): string {
  const named = countries.map((code) => regions.of(code) ?? code).join(', ');
  return way === 'all' ? '' : `${way === 'only' ? 'Shown only in' : 'Not shown in'} ${named}`;
}

/** What was agreed to with owners of what is in it. */
function agreedIn({ matches = [] }: Video): string[] {
  return matches
    .filter(({ state }) => state === 'agreed')
    .map(({ wants, countries, work, owner }) => {
      if (wants === 'close') return `Not shown in ${countries?.join(', ')}`;
      return wants === 'silence' ? `Without “${work}” by ${owner}` : `With “${work}” by ${owner}`;
    });
}

/** What the owner says of the video, as viewers read it. */
function particulars({ video, category }: Pick<Watched, 'video' | 'category'>): string[] {
  const says = [
    category,
    video.language && `Spoken: ${new Intl.DisplayNames('en', { type: 'language' }).of(video.language)}`,
    video.licence === 'cc-by' ? 'Creative Commons, attribution' : 'All rights reserved',
    video.recordedOn && `Recorded on ${video.recordedOn}`,
    video.place && `Recorded at ${video.place}`,
    video.madeForChildren && 'Made for children',
    video.adultsOnly && 'Adults only',
    video.shownIn && shownWhere(video.shownIn),
    video.paidPlacement && 'Contains paid placement',
    COMMENTS[video.comments ?? 'off'],
    video.ratings === false && 'Ratings are not shown',
    video.embedding === false && 'Not to be shown on other pages',
    ...agreedIn(video),
    video.adverts && video.adverts !== 'off' && `Adverts by ${video.adverts}`,
  ];
  return says.filter((each): each is string => typeof each === 'string' && each !== '');
}

/** The page on which the public watches a video. */
export function watchPage({ video, chapters, channel, category, playlists, languages }: Watched): string {
  const playable = video.stage === 'ready' || video.stage === 'full';
  const date = video.publishedAt ?? video.createdAt;
  // The date under a video is that of the site's own time zone.
  const shown = new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', timeZone: 'America/St_Johns' }).format(
    new Date(date),
  );
  return page(
    `${video.title} · Lanternfold`,
    STYLE,
    <>
      <header className="mast">
        <b>Lanternfold</b>
        <a href={`/channel/${video.channelId}`}>More from {channel}</a>
      </header>
      <main className="watch">
        <h1>{video.title}</h1>
        <p className="by">
          {channel} · {shown}
          {video.visibility === 'by-link' && ' · only people with the link'}
          {video.visibility === 'closed' && ' · only you see this'}
        </p>
        {playable ? (
          // biome-ignore lint/a11y/useMediaCaption: captions are shown where the video has any
          <video
            controls
            preload="metadata"
            poster={`/watch/${video.id}/thumbnail`}
            src={`/watch/${video.id}/video.mp4`}
          >
            {languages.map((language) => (
              <track
                key={language}
                kind="captions"
                srcLang={language}
                src={`/watch/${video.id}/captions/${language}`}
              />
            ))}
          </video>
        ) : (
          <p>
            {video.stage === 'failed' ? 'This video could not be prepared.' : 'This video is still being prepared.'}
          </p>
        )}
        <div className="under">
          <div>
            <Folded
              className="text"
              text={video.description}
              rule={FOLD}
              show={(part) => <Lines text={part} chapters={chapters} />}
            />
            <div className="tags">
              {video.tags.map((tag) => (
                <span key={tag}>{tag}</span>
              ))}
            </div>
          </div>
          <div className="aside">
            {playable && <img alt="Thumbnail" src={`/watch/${video.id}/thumbnail`} />}
            {video.stage === 'full' && <p>Playing the first, small version. The full one follows.</p>}
            {chapters.length > 0 && (
              <>
                <h2>Chapters</h2>
                <ol className="parts">
                  {chapters.map((chapter) => (
                    <li key={chapter.seconds}>
                      <button type="button" data-seek={chapter.seconds}>
                        <span>{stamp(chapter.seconds)}</span>
                        {chapter.title}
                      </button>
                    </li>
                  ))}
                </ol>
              </>
            )}
            <ul className="said">
              {particulars({ video, category }).map((each) => (
                <li key={each}>{each}</li>
              ))}
              {languages.length > 0 && <li>Captions: {languages.join(', ')}</li>}
            </ul>
            {playlists.map((playlist) => (
              <p key={playlist.id}>In the playlist “{playlist.title}”</p>
            ))}
          </div>
        </div>
      </main>
      {/* biome-ignore lint/security/noDangerouslySetInnerHtml: the script is our own constant */}
      <script dangerouslySetInnerHTML={{ __html: SEEK }} />
    </>,
  );
}

/** What somebody sees who may not watch. */
export function closedPage(): string {
  return page(
    'Not open · Lanternfold',
    STYLE,
    <main className="sheet">
      <p className="brand">Lanternfold</p>
      <h1>This video is not open</h1>
      <p>Its owner has kept it closed, or it is gone.</p>
    </main>,
  );
}

/** A channel with its open videos. */
export function channelPage(channel: string, videos: Video[]): string {
  return page(
    `${channel} · Lanternfold`,
    STYLE,
    <>
      <header className="mast">
        <b>Lanternfold</b>
      </header>
      <main className="watch">
        <h1>{channel}</h1>
        <ul>
          {videos.map((video) => (
            <li key={video.id}>
              <a href={`/watch/${video.id}`}>{video.title}</a>
            </li>
          ))}
        </ul>
      </main>
    </>,
  );
}
