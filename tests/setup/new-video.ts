import type { Video } from '@/store/record/videos';

/** What is kept of a video of no series that has nothing but a title. */
export const newVideo = (title: string): Pick<Video, 'title' | 'seriesId' | 'seriesFrom' | 'episode'> => ({
  title,
  seriesId: undefined,
  seriesFrom: undefined,
  episode: '',
});
