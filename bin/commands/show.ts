import { STATE_WORDS } from '@/core/drop';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import type { SheetView } from '@/desk/views/views';
import { dropWords } from '@/ui/drop-words';
import { explanation } from './explain';
import { zoneHere } from './named/moment';
import { videoNamed } from './named/video';

/** What scripts read of a video. */
function asData(sheet: SheetView): object {
  const { id, title, summary, episode, series, values, cut } = sheet;
  return {
    video: id,
    title,
    summary,
    episode,
    series: series?.name ?? null,
    privacy: values.privacy,
    file: cut ? { name: cut.fileName, state: cut.state, size: cut.size, refusal: cut.refusal ?? null } : null,
    channels: sheet.channels
      .filter(({ ticked }) => ticked)
      .map(({ name, site, drop, missing, changes, values: own, words }) => ({
        channel: name,
        site,
        state: drop?.state ?? 'draft',
        privacy: own.privacy.value,
        openTo: drop?.openedTo ?? null,
        link: drop?.link ?? null,
        title: words.title,
        text: words.text,
        tags: words.tags,
        missing: missing.map(({ what }) => what),
        changes,
        actions: drop?.actions ?? [],
        snag: drop?.snag ?? null,
        otherFile: drop?.otherFile ?? false,
      })),
  };
}

/** Prints a video: what is set, what each channel gets, where each drop stands, and what can be done. */
export async function show(name: string, options: { json?: boolean }): Promise<void> {
  const sheet = await lookAtSheet(await videoNamed(name));
  if (options.json) {
    process.stdout.write(`${JSON.stringify(asData(sheet), null, 2)}\n`);
    return;
  }
  const lines = [`${sheet.title || 'Without a title'}  (video ${sheet.id})`];
  lines.push(sheet.cut ? `File: ${sheet.cut.fileName}, ${sheet.cut.refusal ?? sheet.cut.state}` : 'File: none yet');
  for (const { ticked, name: channel, siteName, drop, missing, changes } of sheet.channels) {
    if (!ticked) continue;
    lines.push(`${channel} on ${siteName}: ${drop ? dropWords(drop, zoneHere()) : STATE_WORDS.draft}`);
    if (drop?.link) lines.push(`  Link: ${drop.link}`);
    if (drop?.snag) lines.push(`  ${drop.snag.remedy}.`);
    for (const { what } of drop?.state === 'draft' ? missing : []) lines.push(`  Missing: ${what}`);
    for (const { field, was, is } of changes) lines.push(`  Not sent yet: ${field}: “${was}” → “${is}”`);
    if (drop && drop.actions.length > 0) lines.push(`  Can be done: ${drop.actions.join(', ')}`);
  }
  process.stdout.write(`${lines.join('\n')}\n\n${explanation(sheet)}\n`);
}
