import { execFileSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { cornerOnPath, type Framing, pathOf, shotStarts } from '@/core/framing';
import { type Asked, demandOf, type FileSet, READY_SETS, type Recipe } from '@/core/renditions';
import { plus, rate, timeOfFrame } from '@/core/time';
import { makeRendition } from '@/media/rendition/make-rendition';
import { lanternfoldProfile as lanternfold } from '@/sites/lanternfold/profile';
import { AAC, H264, looked, made, TONE } from '../setup/made-files';

/** A picture whose brightness says how far right, and whose colour how far down, a point of it lies. */
const SLOPES = (frames: string) => [
  ...['-f', 'lavfi', '-i', `color=s=640x360:r=${frames}:d=4,geq=lum='16+X*219/639':cb='16+Y*224/179':cr=128`],
];
const ready = READY_SETS.find(({ id }) => id === 'upright') as FileSet;
/** With so many bits that what an encoder leaves out does not hide a pixel. */
const upright: FileSet = { ...ready, settings: { ...ready.settings, control: { way: 'quality', quality: 10 } } };

/**
 * Where the left side of a frame 162 wide stands in a picture 640 wide, counted by hand from what is placed: its middle is at
 * so many ten-thousandths of the 640, and it stays inside. Half way between two places it is in their middle.
 */
const BY_HAND: [frame: number, left: number][] = [
  // 0.3 × 640 − 81; what is placed first holds before it, too.
  [0, 111],
  [20, 111],
  // 0.7001 × 640 − 81 = 367.06, and the middle of that and 111.
  [30, 239],
  [40, 367],
  [59, 367],
  // 0.25 × 640 − 81, at once.
  [60, 79],
  [69, 79],
  // 640 − 162: further right is no picture. It holds from where the shot begins.
  [70, 478],
  [95, 478],
];

/** The mean of each frame of a file, of brightness and of the first colour. */
function means(file: string): { y: number; u: number }[] {
  const out = execFileSync(
    'ffmpeg',
    [...['-v', 'error', '-i', file, '-vf', 'signalstats,metadata=print:file=-:direct=1', '-an', '-f', 'null', '-']],
    { encoding: 'utf8', maxBuffer: 1e8 },
  );
  const all = (key: string) => [...out.matchAll(new RegExp(`${key}=([\\d.]+)`, 'g'))].map(([, value]) => Number(value));
  const [ys, us] = [all('signalstats\\.YAVG'), all('signalstats\\.UAVG')];
  return ys.map((y, index) => ({ y, u: us[index] ?? 0 }));
}

describe.each(['25', '30000/1001'])('an upright file at %s frames a second', (frames) => {
  it('shows of each frame what core says that it shows, to the pixel, with a start that is left off too', async () => {
    const file = made(
      `slopes-${frames.replace('/', '-')}.mp4`,
      ...SLOPES(frames),
      ...TONE,
      ...H264,
      '-crf',
      '4',
      ...AAC,
    );
    const cut = await looked(file);
    const exact = rate(cut.facts.video.rate.num, cut.facts.video.rate.den);
    const at = (frame: number) => timeOfFrame(frame, exact);
    const framing: Framing = {
      percent: 80,
      placements: [
        { at: at(20), x: 3000, y: 4500, comes: 'held' },
        { at: at(40), x: 7001, y: 5500, comes: 'smooth' },
        { at: at(60), x: 2500, y: 5000, comes: 'cut' },
        { at: at(80), x: 9999, y: 5000, comes: 'held' },
      ],
    };
    // A shot begins at frame 70: what is placed at 80 holds from there.
    const shots = [0, 70];
    const asked: Asked = {
      site: lanternfold,
      set: upright,
      remedies: { from: at(10) },
      framings: { upright: framing },
    };
    const measures = cut.measures && { ...cut.measures, shots };
    const demand = demandOf({ facts: cut.facts, measures }, asked);
    if ('refused' in demand) throw new Error(demand.refused);
    const recipe = demand.recipes[0] as Recipe & { picture: { width: number; height: number } };
    const { width, height } = recipe.picture;
    expect([width, height]).toEqual([162, 288]);
    const to = `${file}.framed.mp4`;
    await makeRendition(file, cut.facts, recipe, to);

    const sizes = { full: { width: 640, height: 360 }, frame: { width, height } };
    const path = pathOf(framing.placements, shotStarts(shots, exact));
    const seen = means(to);
    expect(seen.length).toBeGreaterThan(80);
    for (const [frame, x] of BY_HAND) {
      const corner = cornerOnPath(path, at(frame), sizes);
      expect([frame, Math.round(corner.x)]).toEqual([frame, x]);
    }
    seen.forEach(({ y, u }, index) => {
      const corner = cornerOnPath(path, plus(at(10), at(index)), sizes);
      // The middle of the frame, counted back from its mean brightness and colour: a pixel is a third of a step.
      const [x, down] = [((y - 16) * 639) / 219, ((u - 16) * 359) / 224];
      expect(Math.abs(x - (Math.round(corner.x) + (width - 1) / 2)), `frame ${index}`).toBeLessThan(2);
      expect(Math.abs(down - (Math.round(corner.y) + (height - 1) / 2)), `frame ${index}`).toBeLessThan(2.5);
    });
  });
});

it('is shown in its shape by ffprobe, whatever was not placed being the middle', async () => {
  const file = made('slopes-25.mp4', ...SLOPES('25'), ...TONE, ...H264, '-crf', '4', ...AAC);
  const cut = await looked(file);
  const demand = demandOf(cut, { site: lanternfold, set: upright, remedies: {} });
  if ('refused' in demand) throw new Error(demand.refused);
  expect(demand.why).toContain('“Upright” asks for an upright (9:16) picture');
  const recipe = demand.recipes[0] as Recipe;
  const to = `${file}.middle.mp4`;
  const facts = await makeRendition(file, cut.facts, recipe, to);
  expect([facts.video.width, facts.video.height]).toEqual([202, 360]);
  for (const { y } of means(to)) expect(Math.abs(y - (16 + 219 / 2))).toBeLessThan(1.5);
});
