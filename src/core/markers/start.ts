import { frameOfTimecode, type Rate, timecodeOfFrame } from '../time';

/**
 * Where a time line probably starts of which only a first timecode is known: at the full hour before it, since editors
 * let time lines start at 00:00:00:00, 01:00:00:00 or 10:00:00:00. Both as frame counts.
 */
export function hourBefore(frame: number, rate: Rate): number {
  const [hours = '00'] = timecodeOfFrame(frame, rate).split(':');
  return frameOfTimecode(`${hours}:00:00:00`, rate);
}
