import { type CutMeasures, type CutSpan, codecName, containerName } from '@/core/delivery';
import { type Finding, momentWords, preflight } from '@/core/preflight';
import { rate, rateName, toNumber } from '@/core/time';
import { lookedOver } from './named/looked-over';
import { siteNamed } from './named/site';

interface PreflightOptions {
  site?: string[];
  json?: boolean;
}

const say = (text: string) => process.stdout.write(`${text}\n`);
const SIGNS: Record<Finding['level'], string> = { stops: '▲ stops', warns: '▲', note: '○' };

const seconds = (span: CutSpan) => ({ from: toNumber(span.from), to: toNumber(span.to) });

/** Measures as scripts read them: seconds and levels as decimal numbers. */
const measuresAsData = ({ picture, sound }: CutMeasures) => ({
  integratedLufs: sound?.integratedLufs ?? null,
  rangeLu: sound?.rangeLu ?? null,
  truePeakDbtp: sound?.truePeakDbtp ?? null,
  clippedSamples: sound?.clippedSamples ?? null,
  channels: sound?.channels ?? [],
  together: sound?.together ?? null,
  black: picture?.black.map(seconds) ?? [],
  frozen: picture?.frozen.map(seconds) ?? [],
  silent: sound?.silent.map(seconds) ?? [],
  pictureEnds: picture ? toNumber(picture.end) : null,
  soundEnds: sound ? toNumber(sound.end) : null,
  rateVaries: picture?.varies ?? null,
});

const findingAsData = ({ rule, level, site, span, what, why, remedy }: Finding) => ({
  ...{ rule, level, site: site ?? null },
  ...(span ? seconds(span) : { from: null, to: null }),
  ...{ what, why, remedy },
});

/** Prints what a file is and what is wrong with it; the exit code is 1 where a site that is named does not take it. */
export async function printPreflight(file: string, options: PreflightOptions): Promise<void> {
  const sites = options.site?.map(siteNamed) ?? [];
  const { facts, measures } = await lookedOver(file);
  const findings = preflight({ facts, measures, sites });
  if (findings.some(({ level }) => level === 'stops')) process.exitCode = 1;
  if (options.json) {
    const data = { facts, measures: measuresAsData(measures), findings: findings.map(findingAsData) };
    say(JSON.stringify(data, undefined, 2));
    return;
  }
  const { video, audio } = facts;
  const shape = `${video.width}×${video.height} · ${rateName(rate(video.rate.num, video.rate.den))} fps`;
  const lufs = measures.sound?.integratedLufs;
  const sound = audio ? `${codecName(audio.codec)}${lufs === undefined ? '' : `, ${lufs} LUFS`}` : 'no sound';
  say(`${containerName(facts.container)} · ${codecName(video.codec)} · ${shape} · ${sound}`);
  if (findings.length === 0) say('● Nothing to say against it.');
  for (const { level, what, why, remedy, span } of findings) {
    say(`${SIGNS[level]} ${span ? `${momentWords(span.from)} ` : ''}${what}. ${why} ${remedy}.`);
  }
}
