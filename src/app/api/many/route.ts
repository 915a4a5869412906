import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { askOfMany, lookAtManyActs } from '@/desk/many/ask-many';

export const dynamic = 'force-dynamic';

export const GET = guarded(() => lookAtManyActs());

export const POST = guarded(async (request) => askOfMany(await jsonBody(request)));
