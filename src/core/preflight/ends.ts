import type { CutSpan } from '../delivery';
import { compare, type Fraction, fraction, minus, plus, ZERO } from '../time';
import type { Finding, PreflightInput } from './finding';
import { lengthWords, momentWords } from './said';
import { lengthOf, NEAR, overlaps, reaches, startsAt0 } from './spans';

// Common practice, no source: what an edit leaves on purpose at its ends is shorter.
const LEAST_BLACK_AT_END = fraction(1);
const LEAST_BLACK_BETWEEN = fraction(2);
const LEAST_FROZEN_AT_END = fraction(3);
const LEAST_SILENT_AT_END = fraction(3);
/** Picture and sound of a good export end within this of each other. */
const APART = fraction(1, 2);
const atLeast = (span: CutSpan, least: Fraction) => compare(lengthOf(span), least) >= 0;

const EXPORT_AGAIN = 'Set in and out in the edit, export it again, then replace the file';

/** Black, frozen or silent where the video begins and ends, and black in between. */
export function endFindings({ measures }: PreflightInput): Finding[] {
  const { picture, sound } = measures ?? {};
  if (!picture) return [];
  const found: Finding[] = [];
  for (const span of picture.black) {
    const whole = startsAt0(span) && reaches(span, picture.end);
    const length = lengthWords(lengthOf(span));
    if (whole) {
      const what = 'The picture is black from start to end';
      found.push({ rule: 'black', level: 'warns', span, what, why: 'There is nothing to see.', remedy: EXPORT_AGAIN });
    } else if (reaches(span, picture.end) && atLeast(span, LEAST_BLACK_AT_END)) {
      const goesOn = sound && compare(minus(sound.end, span.from), NEAR) > 0;
      const heard = goesOn && !sound.silent.some((each) => overlaps(each, span));
      const what = `${length} of black at the end${heard ? ', while the sound goes on' : ''}`;
      const why =
        'Often the export went past the end of the edit. Viewers leave, and what stands over the end is on black.';
      found.push({ rule: 'black at the end', level: 'warns', span, what, why, remedy: EXPORT_AGAIN });
    } else if (startsAt0(span) && atLeast(span, LEAST_BLACK_AT_END)) {
      const why = 'Viewers decide in the first seconds whether they stay.';
      const what = `${length} of black at the start`;
      found.push({ rule: 'black at the start', level: 'warns', span, what, why, remedy: EXPORT_AGAIN });
    } else if (atLeast(span, LEAST_BLACK_BETWEEN)) {
      const what = `${length} of black at ${momentWords(span.from)}`;
      const why = 'It may be meant; often a clip is missing there.';
      found.push({ rule: 'black between', level: 'note', span, what, why, remedy: 'Look at it in the player' });
    }
  }
  const still = picture.frozen.find((span) => reaches(span, picture.end) && atLeast(span, LEAST_FROZEN_AT_END));
  if (still && !picture.black.some((span) => overlaps(span, still))) {
    const what = `Nothing moves in the last ${lengthWords(lengthOf(still))}`;
    const why = 'Often the last frame was held past the end of the edit.';
    found.push({ rule: 'frozen at the end', level: 'note', span: still, what, why, remedy: EXPORT_AGAIN });
  }
  const quiet = sound?.silent.find((span) => reaches(span, sound.end) && atLeast(span, LEAST_SILENT_AT_END));
  if (quiet && !startsAt0(quiet) && !picture.black.some((span) => overlaps(span, quiet))) {
    const what = `The last ${lengthWords(lengthOf(quiet))} are silent`;
    const why = 'The picture goes on without a sound; the music may have been left out.';
    found.push({ rule: 'silent at the end', level: 'note', span: quiet, what, why, remedy: 'Listen to the end' });
  }
  return found;
}

/** Picture and sound of different length, and a file that breaks off before the end that it tells of. */
export function lengthFindings({ facts, measures, edit }: PreflightInput): Finding[] {
  const { picture, sound } = measures ?? {};
  const found: Finding[] = [];
  const last = picture && sound && compare(sound.end, picture.end) > 0 ? sound.end : picture?.end;
  if (last && compare(minus(facts.duration, last), fraction(1)) > 0) {
    const what = `It can be played up to ${momentWords(last)} only, of ${momentWords(facts.duration)}`;
    const why = 'The rest of the file is damaged or missing.';
    const span = { from: last, to: facts.duration };
    found.push({ rule: 'breaks off', level: 'warns', span, what, why, remedy: 'Export or copy the file again' });
  }
  if (picture && sound) {
    const over = minus(sound.end, picture.end);
    if (compare(over, APART) > 0) {
      const what = `The sound goes on for ${lengthWords(over)} after the picture ends`;
      const why = 'Players show the last picture, or black, until the sound ends.';
      const span = { from: picture.end, to: sound.end };
      found.push({ rule: 'sound after the picture', level: 'warns', span, what, why, remedy: EXPORT_AGAIN });
    } else if (compare(minus(ZERO, over), fraction(1)) > 0 && compare(sound.end, ZERO) > 0) {
      const what = `The sound ends ${lengthWords(minus(picture.end, sound.end))} before the picture`;
      const span = { from: sound.end, to: picture.end };
      const why = 'The end has no sound at all.';
      found.push({ rule: 'picture after the sound', level: 'note', span, what, why, remedy: 'Listen to the end' });
    }
  }
  if (edit) {
    const meant = minus(edit.to, edit.from);
    const over = minus(facts.duration, meant);
    const frame = fraction(facts.video.rate.den, facts.video.rate.num);
    const longer = compare(over, ZERO) > 0;
    const off = longer ? over : minus(ZERO, over);
    // Containers round, and sound ends with its block: two frames are none.
    if (compare(off, plus(frame, frame)) > 0) {
      const what = `The file is ${lengthWords(off)} ${longer ? 'longer' : 'shorter'} than the edit from in to out`;
      const why = 'Chapters and captions may not fit what is seen.';
      found.push({
        rule: 'length of the edit',
        level: 'warns',
        what,
        why,
        remedy: 'Check in and out, or export again',
      });
    }
  }
  return found;
}
