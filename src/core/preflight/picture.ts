import { toNumber } from '../time';
import type { Finding, PreflightInput } from './finding';

/** What is worth knowing of how the picture is made. */
export function pictureFindings({ facts, measures }: PreflightInput): Finding[] {
  const { video, more } = facts;
  const found: Finding[] = [];
  const add = (rule: string, level: Finding['level'], what: string, why: string, remedy: string) =>
    found.push({ rule, level, what, why, remedy });
  if (measures?.picture?.varies) {
    add(
      'varying rate',
      'warns',
      'The frame rate varies',
      'Sound and picture may drift apart, and times of chapters are less exact.',
      'Export it with one frame rate',
    );
  }
  if (more?.indexFirst === false) {
    const why = 'A site can only begin to process it once all of it is there.';
    add('index at the end', 'note', 'The index stands at the end of the file', why, 'Nothing has to be done');
  }
  const format = video.more;
  if (!format) return found;
  if (format.interlaced) {
    const why = 'Screens show whole frames; edges look like combs.';
    add('interlaced', 'warns', 'The picture is interlaced', why, 'Export it as progressive');
  }
  if (format.hdr) {
    const why = 'Where a site shows standard range, it may look pale.';
    add('HDR', 'note', `The picture is HDR (${format.hdr})`, why, 'Look at it on the site before you open it');
  }
  if (format.turned !== 0) {
    const what = `The picture is stored on its side and turned by ${format.turned}° when it is played`;
    add('turned', 'note', what, 'Some players leave it on its side.', 'Export it upright');
  }
  if (toNumber(format.pixelShape) !== 1) {
    const why = 'Some players show it too narrow or too wide.';
    add('pixel shape', 'note', 'The pixels are not square', why, 'Export it with square pixels');
  }
  // Common practice (needs): a whole sphere is a picture of 2:1 with metadata that says so, without which it is shown flat.
  const twoToOne = video.width === video.height * 2;
  if (twoToOne && format.sphere === undefined) {
    const why = 'Without the metadata of a 360° video, sites show it flat.';
    add(
      'flat sphere',
      'note',
      'The picture is 2:1. Is it a 360° video?',
      why,
      'If so, export it with spherical metadata',
    );
  }
  if (!twoToOne && format.sphere === 'equirectangular') {
    const why = 'A whole sphere is a picture of 2:1; this one will look bent.';
    add('sphere of another shape', 'warns', 'It is marked as a 360° video, and is not 2:1', why, 'Export it as 2:1');
  }
  return found;
}
