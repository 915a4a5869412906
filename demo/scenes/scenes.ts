/** A layer that moves: an SVG drawing, and where its top left corner is, as ffmpeg expressions of `t` over one loop. */
export interface Layer {
  svg: string;
  width: number;
  height: number;
  x: string;
  y: string;
}

/** A drawn scene that repeats without a seam every LOOP_SECONDS. */
export interface Scene {
  background: string;
  layers: Layer[];
}

export const LOOP_SECONDS = 4;
export const WIDTH = 1280;
/** The name of the scene that is no scene. */
export const PAST_THE_EDIT = 'past the edit';
const HEIGHT = 720;

/** Colours of a scene: sky, far, near, wood, light. */
export interface Palette {
  sky: string;
  far: string;
  near: string;
  wood: string;
  light: string;
}

const TURN = `2*PI*t/${LOOP_SECONDS}`;
const whole = (body: string, width = WIDTH, height = HEIGHT) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${body}</svg>`;

const waves = (colour: string, opacity: number) => {
  const crest = Array.from({ length: 9 }, () => 'q80 -34 160 0t160 0').join('');
  return whole(`<path d="M0 60${crest}V320H0z" fill="${colour}" opacity="${opacity}"/>`, 1600, 320);
};

const boat = (hull: string, sail: string) =>
  whole(
    `<path d="M40 250h360l-60 80H110z" fill="${hull}"/><path d="M60 268h325" stroke="#fff6" stroke-width="5"/>
     <path d="M205 20v226" stroke="#4a3526" stroke-width="9"/><path d="M215 30l150 206H215z" fill="${sail}"/>
     <path d="M196 60v176H80z" fill="${sail}" opacity=".85"/>`,
    440,
    340,
  );

const sea = (p: Palette) =>
  whole(
    `<defs><linearGradient id="s" x2="0" y2="1"><stop stop-color="${p.sky}"/><stop offset="1" stop-color="${p.light}"/></linearGradient></defs>
     <rect width="1280" height="720" fill="url(#s)"/><circle cx="1010" cy="160" r="74" fill="${p.light}"/>
     <path d="M0 420l180-70 220 50 190-90 260 100 190-50 240 70v120H0z" fill="${p.far}" opacity=".55"/>`,
  );

const shed = (p: Palette) =>
  whole(
    `<rect width="1280" height="720" fill="${p.far}"/><path d="M0 0h1280v90L640 20 0 90z" fill="${p.near}"/>
     ${Array.from({ length: 16 }, (_, i) => `<path d="M${i * 84} 60v480" stroke="${p.near}" stroke-width="4" opacity=".35"/>`).join('')}
     <rect x="900" y="140" width="240" height="210" rx="8" fill="${p.light}"/><path d="M1020 140v210M900 245h240" stroke="${p.near}" stroke-width="10"/>
     <rect y="540" width="1280" height="180" fill="${p.near}"/>`,
  );

/** The scenes of the demo by name; each takes the palette of its video. */
export const SCENES: Record<string, (palette: Palette) => Scene> = {
  /** What an export past the end of its edit leaves; in no edit. */
  [PAST_THE_EDIT]: () => ({ background: whole(`<rect width="${WIDTH}" height="${HEIGHT}" fill="#000"/>`), layers: [] }),
  quay: (p) => ({
    background: sea(p),
    layers: [
      { svg: waves(p.far, 0.9), width: 1600, height: 320, x: `-320+320*t/${LOOP_SECONDS}`, y: `400+8*sin(${TURN})` },
      { svg: boat(p.wood, '#f7efe0'), width: 440, height: 340, x: `400+26*sin(${TURN})`, y: `190+14*sin(2*${TURN})` },
      { svg: waves(p.near, 1), width: 1600, height: 320, x: `-320*t/${LOOP_SECONDS}`, y: `500+10*sin(${TURN}+1)` },
    ],
  }),
  bench: (p) => ({
    background: whole(`${inner(shed(p))}<rect x="120" y="470" width="1040" height="46" rx="6" fill="${p.wood}"/>
      <path d="M220 516v150M1060 516v150" stroke="${p.wood}" stroke-width="44"/>`),
    layers: [
      {
        svg: whole(
          `<path d="M10 90h250v36H10z" fill="#5b6670"/><path d="M40 90q20-60 70-60h30v60z" fill="${p.light}"/><path d="M190 90q0-50 34-56 30 0 26 56z" fill="#7c5230"/>`,
          270,
          130,
        ),
        width: 270,
        height: 130,
        x: `470-300*cos(${TURN})`,
        y: '346',
      },
      {
        svg: whole(
          `<path d="M10 60q20-50 50-20t40-10q20 30-10 34z" fill="none" stroke="${p.light}" stroke-width="7"/>`,
          120,
          80,
        ),
        width: 120,
        height: 80,
        x: `640-260*cos(${TURN})`,
        y: `390-30*abs(sin(${TURN}))`,
      },
    ],
  }),
  ribs: (p) => ({
    background: whole(
      `${inner(shed(p))}${Array.from({ length: 9 }, (_, i) => `<path d="M${150 + i * 108} 560q-70-250 ${24 - i * 6}-390" fill="none" stroke="${p.wood}" stroke-width="22" stroke-linecap="round"/>`).join('')}
      <path d="M90 570h1090" stroke="${p.wood}" stroke-width="38" stroke-linecap="round"/>`,
    ),
    layers: [0, 1, 2].map((n) => ({
      svg: whole(
        `<circle cx="90" cy="90" r="80" fill="#fff" opacity=".${4 - n}"/><circle cx="150" cy="70" r="46" fill="#fff" opacity=".3"/>`,
        210,
        180,
      ),
      width: 210,
      height: 180,
      x: `${190 + n * 330}+40*sin(${TURN}+${n})`,
      y: `430-mod(t+${n * 1.33}\\,${LOOP_SECONDS})*110`,
    })),
  }),
  rope: (p) => ({
    background: whole(
      `<rect width="1280" height="720" fill="${p.light}"/><circle cx="1080" cy="560" r="240" fill="${p.sky}" opacity=".4"/><circle cx="160" cy="120" r="170" fill="${p.far}" opacity=".35"/>
       <path d="M140 470C420 120 560 640 720 330s340-110 420 140" fill="none" stroke="${p.near}" stroke-width="54" stroke-linecap="round"/>
       <path d="M140 470C420 120 560 640 720 330s340-110 420 140" fill="none" stroke="${p.wood}" stroke-width="40" stroke-dasharray="26 10"/>`,
    ),
    layers: [
      {
        svg: whole(
          `<path d="M60 150q-44-90 30-120 76 20 40 116z" fill="#e9b58c"/><path d="M40 150h110v50H40z" fill="${p.sky}"/>`,
          190,
          200,
        ),
        width: 190,
        height: 200,
        x: `620+190*cos(${TURN})`,
        y: `240+120*sin(${TURN})`,
      },
    ],
  }),
  lantern: (p) => ({
    background: whole(
      `<rect width="1280" height="720" fill="#10202c"/><path d="M0 470h1280v250H0z" fill="${p.near}"/><path d="M0 470h520v90H0z" fill="#2a2018"/>
       <path d="M300 470V250M290 250h60" stroke="#2a2018" stroke-width="16"/>${Array.from({ length: 26 }, (_, i) => `<circle cx="${(i * 337) % 1280}" cy="${(i * 91) % 400}" r="2.500" fill="#fff9"/>`).join('')}`,
    ),
    layers: [
      {
        svg: whole(
          `<defs><radialGradient id="g"><stop stop-color="${p.light}"/><stop offset="1" stop-color="${p.light}" stop-opacity="0"/></radialGradient></defs>
           <circle cx="190" cy="190" r="190" fill="url(#g)"/><rect x="165" y="150" width="50" height="80" rx="10" fill="#ffe9b0"/>`,
          380,
          380,
        ),
        width: 380,
        height: 380,
        x: `160+10*sin(${TURN})`,
        y: `120+4*cos(${TURN})`,
      },
      { svg: waves(p.far, 0.6), width: 1600, height: 320, x: `-320*t/${LOOP_SECONDS}`, y: '540' },
    ],
  }),
};

function inner(svg: string): string {
  return svg.replace(/^<svg[^>]*>/, '').replace(/<\/svg>$/, '');
}
