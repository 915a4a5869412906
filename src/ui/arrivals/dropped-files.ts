import { fromEvent } from 'file-selector';

const VIDEO = /\.(mp4|m4v|mov|mkv|webm|avi|mpg|mpeg|mxf|ts|m2ts|wmv|3gp|ogv)$/i;

const isVideo = (file: File) => file.type.startsWith('video/') || VIDEO.test(file.name);

/** The files that were dropped, those in folders too. To be called in the event itself: afterwards they are gone. */
export async function droppedFiles(event: Event): Promise<File[]> {
  return (await fromEvent(event)).filter((each) => each instanceof File);
}

/** Of several files those that are videos, and the others. A single file is taken for what somebody says that it is. */
export function videosAmong(files: readonly File[]): { videos: File[]; others: File[] } {
  if (files.length <= 1) return { videos: [...files], others: [] };
  return { videos: files.filter(isVideo), others: files.filter((file) => !isVideo(file)) };
}
