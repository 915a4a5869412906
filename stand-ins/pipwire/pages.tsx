import { page } from '../shared/page';
import type { Post } from './post';

export const STYLE = `
:root{--plum:#4b1f4f;--cream:#fff6f2;--coral:#a8323f;--dusk:#6d5a70}
*{box-sizing:border-box;margin:0}
body{background:var(--cream);color:#2b1b2e;font:17px/1.5 "DejaVu Sans","Liberation Sans",sans-serif}
a{color:var(--coral)}
.top{background:var(--plum);color:var(--cream);padding:12px 20px;font-weight:700;display:flex;justify-content:space-between}.top a{color:#ffd9d0}
.pip{max-width:520px;margin:26px auto;background:#fff;border-radius:22px;overflow:hidden;box-shadow:0 2px 0 #e9d5d9}
.pip video,.pip img{display:block;width:100%;background:#1d1120}
.pip div{padding:16px 20px}.words{white-space:pre-wrap;overflow-wrap:anywhere;margin-bottom:8px}.words b{color:var(--coral)}
.by{color:var(--dusk);font-size:14px}
.sheet{max-width:480px;margin:48px auto;background:#fff;border-radius:22px;padding:30px 34px}
.brand{color:var(--plum);font-weight:700;margin-bottom:8px}h1{font-size:24px;margin-bottom:12px}h2{font-size:16px;margin-top:16px}
.sheet li{margin:3px 0}.pick{display:flex;gap:12px;padding:8px 0;border-top:1px solid #efe0e2}.pick input{accent-color:var(--coral);width:20px;height:20px;margin-top:3px}
.fine{color:var(--dusk);font-size:14px;margin:14px 0}.answers{display:flex;gap:10px;flex-wrap:wrap}
.answers button{font:600 15px inherit;background:var(--coral);color:#fff;border:0;padding:11px 18px;border-radius:20px;cursor:pointer}
.answers .quiet{background:none;color:var(--coral);box-shadow:inset 0 0 0 1px var(--coral)}
.person{display:flex;flex-direction:column;width:100%;text-align:left;font:inherit;background:none;border:1px solid #e9d5d9;border-radius:14px;padding:12px 16px;margin-top:10px;cursor:pointer}.person span{color:var(--dusk)}
`;

function Words({ words }: { words: string }) {
  return (
    <p className="words">
      {words.split(/(#[\p{L}\p{M}\p{N}_]+)/u).map((part, index) => {
        const key = index;
        return part.startsWith('#') ? <b key={key}>{part}</b> : <span key={key}>{part}</span>;
      })}
    </p>
  );
}

/** The page of a post. Its date is that of the reader, so the page gives the instant and the browser the day. */
export function postPage(post: Post, handle: string): string {
  const playable = post.stage === 'ready' || post.stage === 'full';
  const instant = post.publishedAt ?? post.createdAt;
  return page(
    `${handle} on Pipwire`,
    STYLE,
    <>
      <header className="top">
        Pipwire <a href={`/wire/${post.channelId}`}>{handle}</a>
      </header>
      <main className="pip">
        {playable ? (
          // biome-ignore lint/a11y/useMediaCaption: a pip has no captions
          <video controls preload="metadata" poster={`/p/${post.id}/thumbnail`} src={`/p/${post.id}/video.mp4`} />
        ) : (
          <p>The clip is being prepared.</p>
        )}
        <div>
          <h1 className="by">{handle}</h1>
          <Words words={post.words} />
          <p className="by">
            <time dateTime={instant}>{instant.slice(0, 10)}</time>
            {!post.out && ' · a draft, only you see it'}
          </p>
        </div>
      </main>
      <script
        // biome-ignore lint/security/noDangerouslySetInnerHtml: the script is our own constant
        dangerouslySetInnerHTML={{
          __html:
            "for(const t of document.querySelectorAll('time'))t.textContent=new Date(t.dateTime).toLocaleDateString()",
        }}
      />
    </>,
  );
}

/** What somebody sees who may not. */
export function cutPage(): string {
  return page(
    'Nothing here · Pipwire',
    STYLE,
    <main className="sheet">
      <p className="brand">Pipwire</p>
      <h1>Nothing on this wire</h1>
      <p>The post is a draft, or it was taken back.</p>
    </main>,
  );
}

/** A wire with what is out on it. */
export function wirePage(handle: string, posts: Post[]): string {
  return page(
    `${handle} · Pipwire`,
    STYLE,
    <>
      <header className="top">Pipwire</header>
      <main>
        {posts.map((post) => (
          <section key={post.id} className="pip">
            <div>
              <Words words={post.words} />
              <a href={`/p/${post.id}`}>Watch</a>
            </div>
          </section>
        ))}
      </main>
    </>,
  );
}
