import { answerForError, reasonToRefuse } from '@/app/guard';
import { answerArrival } from './arrivals';

export const dynamic = 'force-dynamic';

/** Cuts come in by tus 1.0; the server of the protocol answers, Host and Origin are checked before it. */
async function answer(request: Request): Promise<Response> {
  const refusal = reasonToRefuse(request);
  if (refusal) return new Response(refusal, { status: 403 });
  try {
    return await answerArrival(request);
  } catch (error) {
    return answerForError(error);
  }
}

export { answer as DELETE, answer as HEAD, answer as OPTIONS, answer as PATCH, answer as POST };
