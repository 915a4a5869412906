import { profileAt, recordOf } from '@/desk/drop/record';
import { log } from '@/desk/log';
import { askedForDrop } from '@/desk/site/asked-for-drop';
import { isOpenToUs, sessionFor, site } from '@/desk/site/session';
import { AllowanceSpent, SiteError } from '@/sites/contract';
import { database } from '@/store/database';
import { dropById } from '@/store/drop/drops';
import { deleteEarlyUpload, type EarlyUpload, earlyUploadById, keepEarlyUpload } from '@/store/drop/early-uploads';
import { announce } from '@/store/feed';
import { ClaimLost } from '@/store/queue/claims';
import { type Channel, channelById } from '@/store/site/channels';
import { restingChannels } from '@/store/site/circuits';
import { carryRendition, fileNameFor } from '../line/carry-rendition';
import { fileForDrop } from '../steps/file-for-drop';
import { idAtSite } from '../steps/id-at-site';
import { SnagFound } from '../steps/step';
import type { JobContext, JobEnd, JobWork } from './job-work';

const REST_SECONDS = 5;
const LATER_SECONDS = 15;

/** Has a file go up before its words, or removes one that is not wanted any more. */
export const early: JobWork = {
  async run(context) {
    const upload = await earlyUploadById(database(), context.job.subject);
    const channel = upload && (await channelById(database(), upload.channelId));
    if (!upload || !channel) return {};
    const resting = await restingChannels(database());
    if (resting.some(({ channelId, over }) => channelId === channel.id && !over)) return { again: REST_SECONDS };
    try {
      return upload.dropId ? await carry(upload, channel, context) : await remove(upload, channel);
    } catch (error) {
      // Neither is the work's fault, however often it happens: what went over stays there, and it goes on from that.
      if (error instanceof AllowanceSpent) return { again: error.seconds };
      if (!(error instanceof SiteError) || (error.kind !== 'unreachable' && error.kind !== 'busy')) throw error;
      const { name } = site(channel.site).profile;
      return { again: error.retryAfter ?? LATER_SECONDS, trouble: `${name}: ${error.message}` };
    }
  },
  async videoOf(db, { subject }) {
    return (await earlyUploadById(db, subject))?.videoId;
  },
};

async function carry(upload: EarlyUpload, channel: Channel, { signal, tell }: JobContext): Promise<JobEnd> {
  const db = database();
  const drop = await dropById(db, upload.dropId ?? '');
  if (drop?.state !== 'draft' || !isOpenToUs(channel)) return {};
  const adapter = site(channel.site);
  const record = await recordOf(db, upload.videoId);
  if (record.cut?.id !== upload.cutId) return {};
  const taken = new AbortController();
  try {
    const profile = profileAt(adapter.profile, channel);
    const file = await fileForDrop({ record, drop, profile });
    if ('again' in file) return { again: Math.max(1, file.again) };
    const { rendition } = file;
    // File settings were changed while it went up: it is looked at again once the drop is sent.
    if (upload.renditionId && upload.renditionId !== rendition.id) return {};
    const keep = async (fields: Parameters<typeof keepEarlyUpload>[2]) => {
      if (await keepEarlyUpload(db, upload.id, fields)) return await announce(db, 'video', upload.videoId);
      // Its drop was sent, or it is not wanted any more: who has it now goes on from what is kept.
      taken.abort(new ClaimLost(`early upload ${upload.id}`));
      taken.signal.throwIfAborted();
    };
    await keep({ renditionId: rendition.id, bytesTotal: rendition.size });
    const fileName = fileNameFor(record.cut, rendition);
    await askedForDrop(drop.id, channel.accountId, 'bring the file early', 'work', (session) =>
      carryRendition({
        ...{ adapter, channel, rendition, session, fileName, key: upload.transferKey, so: upload },
        signal: AbortSignal.any([signal, taken.signal]),
        async keep({ progress, waiting: _, ...fields }) {
          if (progress) tell(progress);
          await keep(fields);
        },
      }),
    );
    await keep({ bytesSent: rendition.size });
    return {};
  } catch (error) {
    if (taken.signal.aborted) return {};
    // What keeps it from going is said where it is sent.
    if (!(error instanceof SnagFound)) throw error;
    log.info({ early: upload.id, why: error.what }, 'does not go up early');
    return {};
  }
}

async function remove(upload: EarlyUpload, channel: Channel): Promise<JobEnd> {
  const adapter = site(channel.site);
  const session = sessionFor(channel.accountId, 'urgent');
  const there = await idAtSite(upload, { adapter, session, channel });
  if (there) await adapter.remove(session, there);
  return { write: (trx) => deleteEarlyUpload(trx, upload.id) };
}
