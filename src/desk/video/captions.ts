import { object, string } from 'yup';
import { LANGUAGE_TAG } from '@/core/declarations';
import { floor, fraction, times } from '@/core/time';
import { database } from '@/store/database';
import { captionsOf, captionText, makeCaptions } from '@/store/record/captions';
import { cutsInUse } from '@/store/record/cuts';
import { videoById } from '@/store/record/videos';
import { found } from '../desk-error';
import { trimmed } from '../text-shape';
import { editVideo } from './edit-video';
import { readCaptionFile } from './reading/apart';

const placeShape = object({
  language: string()
    .matches(LANGUAGE_TAG, 'Name the language by its tag, such as en, de or pt-BR.')
    .max(35)
    .required('Name the language of the captions.'),
  fileName: trimmed().max(500).default('captions'),
});

/**
 * Takes a caption file for one language, in the place of what the language had.
 * @param bytes of the file
 * @param input its name and language, unchecked
 * @throws MarkerFileError naming the line that cannot be read
 */
export async function bringCaptions(videoId: string, bytes: Uint8Array, input: unknown): Promise<void> {
  const { language, fileName } = await placeShape.validate(input);
  const db = database();
  found(await videoById(db, videoId), 'video');
  const duration = (await cutsInUse(db, [videoId])).get(videoId)?.facts?.duration;
  const milliseconds = duration && floor(times(duration, fraction(1000)));
  const { findings, webvtt } = await readCaptionFile({ bytes, duration: milliseconds });
  const id = await makeCaptions(db, { videoId, language, fileName, findings, webvtt });
  const others = (await captionsOf(db, videoId)).filter((track) => track.language !== language);
  await editVideo(videoId, { captions: [...others.map((track) => track.id), id] });
}

/** Takes captions off a video; undo brings them back. */
export async function dropCaptions(videoId: string, id: string): Promise<void> {
  const rest = (await captionsOf(database(), videoId)).filter((track) => track.id !== id);
  await editVideo(videoId, { captions: rest.map((track) => track.id) });
}

/** Captions as a WebVTT file, for the player. */
export async function openCaptions(id: string): Promise<string> {
  return found(await captionText(database(), id), 'caption');
}
