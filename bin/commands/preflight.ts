import { stat } from 'node:fs/promises';
import { type CutFacts, type CutMeasures, type CutSpan, codecName, containerName } from '@/core/delivery';
import { type Finding, momentWords, preflight } from '@/core/preflight';
import { rate, rateName, toNumber } from '@/core/time';
import { DeskError } from '@/desk/desk-error';
import { readFacts, UnusableCut } from '@/media/facts';
import { measureCut } from '@/media/pass/measure-cut';
import { ProgramError } from '@/media/program';
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

async function looked(file: string): Promise<{ facts: CutFacts; measures: CutMeasures }> {
  const { size } = await stat(file).catch(() => {
    throw new DeskError('not found', `There is no file ${file}.`);
  });
  try {
    const facts = await readFacts(file, size);
    return { facts, measures: await measureCut(file, facts) };
  } catch (error) {
    if (error instanceof UnusableCut) throw new DeskError('not taken', error.message);
    if (!(error instanceof ProgramError)) throw error;
    throw new DeskError('not taken', `${file} cannot be played: ${error.said}. Export it again.`);
  }
}

/** Prints what a file is and what is wrong with it; the exit code is 1 where a site that is named does not take it. */
export async function printPreflight(file: string, options: PreflightOptions): Promise<void> {
  const sites = options.site?.map(siteNamed) ?? [];
  const { facts, measures } = await looked(file);
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
