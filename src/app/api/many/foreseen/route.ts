import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { foreseeMany } from '@/desk/many/foresee-many';

export const POST = guarded(async (request) => foreseeMany(await jsonBody(request)));
