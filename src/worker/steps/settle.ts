import { STOP_WORDS } from '@/core/drop';
import { meantWords } from '@/desk/drop/meant';
import { lookAgain, SnagFound, type Step } from './step';
import { keepVersions } from './versions';

/** Towards settled: the site has finished processing. */
export const settle: Step = async (context) => {
  const { drop, adapter, session, now, record, channel, profile } = context;
  const { state, versions } = (await adapter.look(session, drop.siteVideoId ?? '')).status;
  await keepVersions(context, versions);
  switch (state.stage) {
    case 'ready':
      return { move: 'settled', says: `${STOP_WORDS.settled}: the site has finished with the file` };
    case 'failed': {
      const { name } = adapter.profile;
      const remedy = 'Watch the video through; replace the file or try again';
      throw new SnagFound('processing', `${name} could not process the file: ${state.reason}`, remedy);
    }
    case 'receiving':
      return lookAgain(drop, now, 'processing', { progress: { says: 'waiting for the site' } });
    case 'processing': {
      const { says, fraction, plays } = state;
      if (plays && !meantWords(record, channel, drop, profile).fullFirst) {
        return { move: 'settled', says: `${STOP_WORDS.settled}: a first version plays, the full one follows` };
      }
      return lookAgain(drop, now, 'processing', { progress: { says, fraction } });
    }
  }
};
