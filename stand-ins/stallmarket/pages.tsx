import { Folded } from '../shared/folded';
import { page } from '../shared/page';
import type { Clip } from './clip';
import { FOLD } from './rules';

export const STYLE = `
:root{--teal:#0e4a4f;--paper:#fbfbf4;--mustard:#7a5a00;--grey:#5b6262}
*{box-sizing:border-box;margin:0}
body{background:var(--paper);color:#1c2626;font:16px/1.5 "Liberation Sans","DejaVu Sans",sans-serif}
a{color:var(--teal)}
.awning{height:18px;background:repeating-linear-gradient(90deg,var(--teal) 0 34px,#fff 34px 68px)}
.front{padding:14px 26px;display:flex;justify-content:space-between;border-bottom:1px solid #d5dad2}.front b{font-size:20px;color:var(--teal)}
.clip{max-width:980px;margin:0 auto;padding:24px 26px 60px;display:grid;grid-template-columns:minmax(0,1fr) 300px;gap:30px}
video{width:100%;display:block;background:#0d1f20;border-radius:8px}
h1{font-size:24px;line-height:1.25;margin:14px 0 6px}h2{font-size:16px;margin-bottom:8px}
.text{white-space:pre-wrap;overflow-wrap:anywhere}.state{color:var(--mustard);margin-top:10px}
.goods{list-style:none;padding:0}.goods li{border:1px solid #d5dad2;border-radius:8px;padding:12px 14px;margin-bottom:10px;background:#fff}.goods span{display:block;color:var(--grey);font-size:14px}
.sheet{max-width:520px;margin:48px auto;background:#fff;border:1px solid #d5dad2;border-radius:8px;padding:30px 34px}
.brand{color:var(--teal);font-weight:700;margin-bottom:8px}.sheet h2{margin-top:16px}
.sheet li{margin:3px 0}.pick{display:flex;gap:12px;padding:8px 0;border-top:1px solid #e5e9e2}.pick input{accent-color:var(--teal);width:20px;height:20px;margin-top:3px}
.fine{color:var(--grey);font-size:14px;margin:14px 0}.answers{display:flex;gap:10px;flex-wrap:wrap}
.answers button{font:600 15px inherit;background:var(--teal);color:#fff;border:0;padding:11px 18px;border-radius:8px;cursor:pointer}
.answers .quiet{background:none;color:var(--teal);box-shadow:inset 0 0 0 1px var(--teal)}
.person{display:flex;flex-direction:column;width:100%;text-align:left;font:inherit;background:none;border:1px solid #d5dad2;border-radius:8px;padding:12px 16px;margin-top:10px;cursor:pointer}.person span{color:var(--grey)}
@media(max-width:760px){.clip{grid-template-columns:minmax(0,1fr)}}
`;

const REVIEW: Record<Clip['review'], string> = {
  none: 'Not handed in for review yet',
  waiting: 'In review: only you see it',
  approved: '',
  declined: 'Turned down',
};

/** The page of a clip with what it sells. Stallmarket shows no date. */
export function clipPage(clip: Clip, stall: string, products: string[]): string {
  const playable = clip.stage === 'ready' || clip.stage === 'full';
  return page(
    `${clip.title} · Stallmarket`,
    STYLE,
    <>
      <div className="awning" />
      <header className="front">
        <b>Stallmarket</b> <a href={`/stall/${clip.channelId}`}>{stall}</a>
      </header>
      <main className="clip">
        <div>
          {playable ? (
            // biome-ignore lint/a11y/useMediaCaption: a clip in a stall has no captions
            <video
              controls
              preload="metadata"
              poster={`/clip/${clip.id}/thumbnail`}
              src={`/clip/${clip.id}/video.mp4`}
            />
          ) : (
            <p>The clip is being prepared.</p>
          )}
          <h1>{clip.title}</h1>
          <Folded className="text" text={clip.text} rule={FOLD} />
          {REVIEW[clip.review] && <p className="state">{REVIEW[clip.review]}</p>}
        </div>
        <aside>
          <h2>In this clip</h2>
          <ul className="goods">
            {products.map((product, index) => (
              <li key={product}>
                {product}
                <span>{clip.products[index]}</span>
              </li>
            ))}
          </ul>
        </aside>
      </main>
    </>,
  );
}

/** What somebody sees who may not. */
export function offPage(): string {
  return page(
    'Not on the stall · Stallmarket',
    STYLE,
    <main className="sheet">
      <p className="brand">Stallmarket</p>
      <h1>This is not on the stall</h1>
      <p>It is in review, or it was taken off.</p>
    </main>,
  );
}

/** A stall with the clips that are shown. */
export function stallPage(name: string, clips: Clip[]): string {
  return page(
    `${name} · Stallmarket`,
    STYLE,
    <>
      <div className="awning" />
      <header className="front">
        <b>Stallmarket</b>
      </header>
      <main className="clip">
        <div>
          <h1>{name}</h1>
          <ul>
            {clips.map((clip) => (
              <li key={clip.id}>
                <a href={`/clip/${clip.id}`}>{clip.title}</a>
              </li>
            ))}
          </ul>
        </div>
      </main>
    </>,
  );
}
