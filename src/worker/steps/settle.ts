import { STOP_WORDS } from '@/core/drop';
import { lookAgain, SnagFound, type Step } from './step';

/** Towards settled: the site has finished processing. */
export const settle: Step = async ({ drop, adapter, session, now }) => {
  const { state } = await adapter.status(session, drop.siteVideoId ?? '');
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
      const { says, fraction } = state;
      return lookAgain(drop, now, 'processing', { progress: { says, fraction } });
    }
  }
};
