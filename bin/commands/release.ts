import { instantOf, type Moment, shownIn, timeIn } from '@/core/release';
import { DeskError } from '@/desk/desk-error';
import { openTogether } from '@/desk/release/open-together';
import { editOnChannel, editVideo } from '@/desk/video/edit-video';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { dropWords } from '@/ui/drop-words';
import { act } from './act';
import { channelsNamed } from './named/channel';
import { momentNamed, zoneHere } from './named/moment';
import { videoNamed } from './named/video';

interface OpenOptions {
  channel?: string[];
  at?: string;
  zone?: string;
  together?: boolean;
  firstShowing?: boolean;
  watch?: boolean;
  now?: boolean;
}

/** Opens a video that is ready; or says at what time, or that it opens together, and lets the worker see to it. */
export async function open(name: string, options: OpenOptions): Promise<void> {
  if (options.at === undefined && !options.together && !options.firstShowing) return act('open', name, options);
  if (options.now)
    throw new DeskError('not now', 'What opens at a time, or together, has no seconds to leave out. Leave --now out.');
  const id = await videoNamed(name);
  const opensAt = options.at === undefined ? null : await momentNamed(options.at, options.zone);
  if (options.firstShowing && !opensAt) throw new DeskError('not now', 'Say with --at when the first showing begins.');
  const fields = {
    release: options.together ? 'together' : options.firstShowing ? 'first showing' : 'at a time',
    opensAt,
  };
  const channels = await channelsNamed(options.channel ?? []);
  if (options.together && !opensAt) {
    await openTogether(id, channels);
    process.stdout.write('Opens together, as soon as all are checked\n');
    return;
  }
  if (channels.length === 0) await editVideo(id, fields);
  for (const channelId of channels) await editOnChannel(id, { channelId, set: fields });
  process.stdout.write(`${options.together ? 'Opens together' : 'Opens'}${opensAt ? ` ${said(opensAt)}` : ''}\n`);
}

const said = (moment: Moment) =>
  `${shownIn(moment.zone, instantOf(moment))} in ${moment.zone} (${instantOf(moment).toISOString()})`;

/** Prints when and how a video opens on each of its channels, or has opened, by this machine's clock. */
export async function release(name: string, options: { json?: boolean }): Promise<void> {
  const sheet = await lookAtSheet(await videoNamed(name));
  const all = sheet.channels.flatMap(({ ticked, name: channel, values, drop }) => {
    if (!ticked) return [];
    const opensAt = values.opensAt.value;
    return [
      {
        channel,
        privacy: values.privacy.value,
        release: values.release.value,
        opensAt: opensAt && instantOf(opensAt).toISOString(),
        wall: opensAt?.wall ?? null,
        zone: opensAt?.zone ?? null,
        liveAt: drop?.liveAt ?? null,
        says: drop ? dropWords(drop, zoneHere()) : 'Not sent yet',
      },
    ];
  });
  if (options.json) {
    process.stdout.write(`${JSON.stringify(all, null, 2)}\n`);
    return;
  }
  for (const { channel, release: way, opensAt, says } of all) {
    const at = opensAt ? `, ${timeIn(zoneHere(), new Date(opensAt))}, ${opensAt}` : '';
    process.stdout.write(`${channel}: ${says} (opens ${way}${at})\n`);
  }
}
