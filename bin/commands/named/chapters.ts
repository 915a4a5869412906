import { type ChapterChoice, NO_CHOICE } from '@/core/chapters';
import { tagsFromText } from '@/core/words';

/** The choice of chapters by marker colours, as they are typed: `green, red`. */
export const chaptersOfColours = (text: string): ChapterChoice => ({
  ...NO_CHOICE,
  colours: tagsFromText(text.toLowerCase()),
});
