import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { editDefaults } from '@/desk/defaults/defaults';
import { lookAtLayer } from '@/desk/views/look-at-layers';

export const dynamic = 'force-dynamic';

type Params = { layer: string; owner: string };

export const GET = guarded<Params>((_request, { layer, owner }) => lookAtLayer({ layer, owner }));

export const PATCH = guarded<Params>(async (request, { layer, owner }) => ({
  reached: await editDefaults({ layer, owner }, await jsonBody(request)),
}));
