import type { Session, SiteCaptions } from './contract';
import { askSite, type Explain } from './json-api';

/**
 * Puts captions one by one at `…/captions/LANGUAGE`, as WebVTT, and takes away the languages that are not among them.
 * @param languagesThere the languages that the site has now
 */
export async function putCaptions(
  session: Session,
  videoAddress: string,
  tracks: readonly SiteCaptions[],
  languagesThere: () => Promise<string[]>,
  explain?: Explain,
): Promise<void> {
  const at = (language: string) => `${videoAddress}/captions/${encodeURIComponent(language)}`;
  for (const { language, webvtt } of tracks) {
    await askSite(session, at(language), { method: 'PUT', bytes: webvtt, type: 'text/vtt' }, explain);
  }
  for (const language of await languagesThere()) {
    if (tracks.some((track) => track.language === language)) continue;
    await askSite(session, at(language), { method: 'DELETE' }, explain);
  }
}
