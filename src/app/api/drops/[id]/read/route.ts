import { guarded } from '@/app/guard';
import { readNow } from '@/desk/differences/read-now';

type Params = { id: string };

export const POST = guarded<Params>(async (_request, { id }) => {
  await readNow(id);
  return undefined;
});
