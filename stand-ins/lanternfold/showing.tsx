import type { FastifyInstance } from 'fastify';
import { object, string } from 'yup';
import { page } from '../shared/page';
import { Problem } from '../shared/problem';
import type { Records } from '../shared/records';
import { valid } from '../shared/site';
import type { Video } from './video';
import { STYLE } from './watch-page';

const MOST_SAID = 500;

/** Whether a first showing is announced, and has not begun. */
export const isToBeShown = ({ firstShowing, opensAt, visibility }: Video): boolean =>
  firstShowing === true && opensAt !== undefined && visibility === 'closed';

/** Whether a video is being shown to all who come: from its moment on, for as long as it lasts. */
export function isBeingShown({ firstShowing, publishedAt, visibility, seconds = 0 }: Video, now = Date.now()): boolean {
  if (!firstShowing || !publishedAt || visibility === 'closed') return false;
  const since = now - Date.parse(publishedAt);
  return since >= 0 && since < seconds * 1000;
}

/** Keeps every viewer at the same moment, by the site's clock, and shows what is said. */
const TOGETHER = `
const body=document.body.dataset,off=Number(body.now)-Date.now();
let start=Number(body.start);
const now=()=>Date.now()+off;
const video=document.querySelector('video');
if(video){
  const follow=()=>{const at=(now()-start)/1000;
    if(at>=video.duration){location.reload();return}
    if(Math.abs(video.currentTime-at)>0.35)video.currentTime=at;
    if(video.paused)video.play().catch(()=>{})};
  video.addEventListener('loadedmetadata',follow);setInterval(follow,500);
  document.querySelector('[data-sound]').addEventListener('click',e=>{video.muted=!video.muted;e.target.textContent=video.muted?'Sound on':'Sound off'});
}else{
  const left=document.querySelector('[data-left]');
  const tick=()=>{const s=Math.max(0,Math.ceil((start-now())/1000));
    left.textContent=[Math.floor(s/3600),Math.floor(s/60)%60,s%60].map(n=>String(n).padStart(2,'0')).join(':');
    if(now()>start+300)location.reload()};
  tick();setInterval(tick,250);
}
const list=document.querySelector('[data-talk]');
const read=async()=>{const now=await(await fetch(location.pathname+'/talk')).json(),said=now.said;
  start=Date.parse(now.start);
  list.replaceChildren(...said.map(({name,says})=>{const li=document.createElement('li');const b=document.createElement('b');b.textContent=name+': ';li.append(b,says);return li}))};
read();setInterval(read,1000);
document.querySelector('form').addEventListener('submit',async e=>{e.preventDefault();
  const form=e.target;
  await fetch(location.pathname+'/talk',{method:'POST',headers:{'content-type':'application/json'},body:JSON.stringify({name:form.name.value,says:form.says.value})});
  form.says.value='';read()});
`;

function together(video: Video, start: string, middle: React.ReactNode): string {
  const body = page(
    `${video.title} · Lanternfold`,
    `${STYLE}.hall{max-width:1080px;margin:0 auto;padding:22px 24px 60px}.left{font-size:44px;font-variant-numeric:tabular-nums}[data-talk]{list-style:none;padding:0;margin:10px 0;max-height:240px;overflow:auto}`,
    <>
      <header className="mast">
        <b>Lanternfold</b>
      </header>
      <main className="hall">
        <h1>{video.title}</h1>
        {middle}
        <h2>Talk</h2>
        <ul data-talk="" aria-live="polite" />
        <form>
          <label>
            Name <input name="name" required maxLength={40} />
          </label>{' '}
          <label>
            What you say <input name="says" required maxLength={300} />
          </label>{' '}
          <button type="submit">Say it</button>
        </form>
      </main>
      {/* biome-ignore lint/security/noDangerouslySetInnerHtml: the script is our own constant */}
      <script dangerouslySetInnerHTML={{ __html: TOGETHER }} />
    </>,
  );
  return body.replace('<body>', `<body data-now="${Date.now()}" data-start="${Date.parse(start)}">`);
}

/** Before a first showing: how long it still is. */
export const waitingPage = (video: Video): string =>
  together(
    video,
    video.opensAt ?? '',
    <>
      <p>
        First showing in <span className="left" data-left="" />
      </p>
      <img alt="" src={`/watch/${video.id}/thumbnail`} width={640} />
    </>,
  );

/** A first showing: everybody sees the same moment. */
export const showingPage = (video: Video): string =>
  together(
    video,
    video.publishedAt ?? '',
    <>
      <p>First showing. Everybody sees the same moment.</p>
      <video muted autoPlay preload="auto" src={`/watch/${video.id}/video.mp4`} />
      <p>
        <button type="button" data-sound="">
          Sound on
        </button>
      </p>
    </>,
  );

const saidShape = object({
  name: string().trim().min(1).max(40).required(),
  says: string().trim().min(1).max(300).required(),
}).noUnknown();

/** What those who came say to each other, before and while it is shown. */
export function registerTalk(server: FastifyInstance, videos: Records<Video>): void {
  const shown = (id: string): Video => {
    const video = videos.get(id);
    if (!video || !(isToBeShown(video) || isBeingShown(video))) throw new Problem(404, 'Not found', 'Nothing is shown');
    return video;
  };
  server.get<{ Params: { id: string } }>('/watch/:id/talk', async (request) => {
    const { talk = [], opensAt, publishedAt } = shown(request.params.id);
    // The time may be moved while people wait.
    return { said: talk, start: opensAt ?? publishedAt };
  });
  server.post<{ Params: { id: string } }>('/watch/:id/talk', async (request) => {
    const video = shown(request.params.id);
    const said = await valid(saidShape.validate(request.body, { stripUnknown: false }));
    const talk = [...(video.talk ?? []), { at: new Date().toISOString(), ...said }].slice(-MOST_SAID);
    videos.change(video.id, { talk });
    return talk;
  });
}
