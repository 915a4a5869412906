import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { lookAtFileSets, newFileSet } from '@/desk/defaults/file-sets';

export const dynamic = 'force-dynamic';

export const GET = guarded(() => lookAtFileSets());

export const POST = guarded(async (request) => newFileSet(await jsonBody(request)));
