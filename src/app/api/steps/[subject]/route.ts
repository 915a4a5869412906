import { object, string } from 'yup';
import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { redo, undo } from '@/desk/changes/changes';

type Params = { subject: string };

const shape = object({ step: string().oneOf(['undo', 'redo']).required() });

/** Takes back, or makes again, the last change of a layer, of the series or of the link shelf. */
export const POST = guarded<Params>(async (request, { subject }) => {
  const { step } = await shape.validate(await jsonBody(request));
  return { changed: await (step === 'undo' ? undo(subject) : redo(subject)) };
});
