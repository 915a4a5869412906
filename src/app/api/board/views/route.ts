import { guarded } from '@/app/guard';
import { jsonBody } from '@/app/json-body';
import { forgetBoardView, keepBoardView, lookAtBoardViews } from '@/desk/house/board-views';

export const dynamic = 'force-dynamic';

export const GET = guarded(() => lookAtBoardViews());

export const PUT = guarded(async (request) => keepBoardView(await jsonBody(request)));

export const DELETE = guarded(async (request) => forgetBoardView(await jsonBody(request)));
