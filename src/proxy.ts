import { NextResponse } from 'next/server';
import { reasonToRefuse } from '@/app/guard';

/** Pages are served to this machine's own names only; route handlers check the same by themselves. */
export function proxy(request: Request): Response {
  const refusal = reasonToRefuse(request);
  return refusal ? new Response(refusal, { status: 403 }) : NextResponse.next();
}

// Not for the route handlers: a proxy would hold the bodies that pass through it.
export const config = { matcher: ['/((?!api/|_next/).*)'] };
