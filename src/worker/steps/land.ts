import { binarySize } from '@/core/delivery';
import { STOP_WORDS } from '@/core/drop';
import { database } from '@/store/database';
import { transferKey } from '@/store/drop/shape';
import { files } from '@/store/files/folder';
import { renditionById } from '@/store/files/renditions';
import { carryRendition, fileNameFor } from '../line/carry-rendition';
import { SpeedLog } from '../line/speed-log';
import { giveParts } from './give';
import { SnagFound, type Step } from './step';

/** Towards landed: every byte is at the site, and the words with them. */
export const land: Step = async (context) => {
  const { drop, channel, record, adapter, session, keep, signal } = context;
  const rendition = drop.renditionId ? await renditionById(database(), drop.renditionId) : undefined;
  if (!rendition || !record.cut) throw new SnagFound('file', 'The packed file is gone', 'Send the video again');
  const here = await files()
    .size(rendition.fileKey)
    .catch(() => undefined);
  if (here !== rendition.size) {
    const what = here === undefined ? 'The file is gone from the disk' : 'The file was changed after it was added';
    throw new SnagFound('file', what, 'Replace the file, then try again');
  }
  const log = new SpeedLog(drop.bytesSent > 0 ? drop.speeds : []);
  const begun = await carryRendition({
    ...{ adapter, session, channel, rendition, signal },
    keep(fields) {
      const rate = fields.progress?.bytesPerSecond;
      const speeds = rate ? log.note(rate, Date.now()) : undefined;
      return keep(speeds ? { ...fields, speeds } : fields);
    },
    fileName: fileNameFor(record.cut, rendition),
    key: transferKey(drop),
    so: drop,
  });
  await keep({ bytesSent: rendition.size, progress: { says: 'setting title, text and picture' } });
  await giveParts(context, begun.siteVideoId);
  return {
    move: 'landed',
    says: `${STOP_WORDS.landed}: ${binarySize(rendition.size)}`,
    fields: { bytesSent: rendition.size },
  };
};
