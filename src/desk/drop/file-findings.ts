import type { CutMeasures } from '@/core/delivery';
import { type Finding, openWarnings, preflight } from '@/core/preflight';
import { remediesFor } from '@/core/renditions';
import type { VideoRecord } from './record';

/**
 * What was found in the file in use, beside what a site's own rules say, which stands with the channels.
 * @param measures undefined until it is measured
 */
export function fileFindings({ cut, video }: VideoRecord, measures: CutMeasures | undefined): Finding[] {
  if (!cut?.facts) return [];
  const { from, to } = video.timeLine;
  const edit = to && { from, to };
  return preflight({ facts: cut.facts, measures, edit, sites: [] });
}

/** Whether something in the file in use is to be looked at before it is sent. */
export function warnsOfFile(record: VideoRecord, measures: CutMeasures | undefined): boolean {
  const { cut, video } = record;
  const remedies = remediesFor(video.remedies, cut?.id);
  const found = { fileFindings: fileFindings(record, measures), wavedThrough: video.wavedThrough, cut, remedies };
  return openWarnings(found).length > 0;
}
