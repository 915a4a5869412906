import { NextResponse } from 'next/server';
import { reasonToRefuse } from '@/app/guard';
import { pagePolicy } from '@/app/page-policy';

/**
 * Pages are served to this machine's own names only; route handlers check the same by themselves. Each page gets a policy of
 * its own, with a number that only its own scripts carry.
 */
export function proxy(request: Request): Response {
  const refusal = reasonToRefuse(request);
  if (refusal) return new Response(refusal, { status: 403 });
  const nonce = Buffer.from(crypto.getRandomValues(new Uint8Array(16))).toString('base64');
  const policy = pagePolicy(nonce);
  const headers = new Headers(request.headers);
  headers.set('x-nonce', nonce);
  // Next.js takes the number for its own scripts from here.
  headers.set('content-security-policy', policy);
  const answer = NextResponse.next({ request: { headers } });
  answer.headers.set('content-security-policy', policy);
  return answer;
}

// Not for the route handlers: a proxy would hold the bodies that pass through it.
export const config = { matcher: ['/((?!api/|_next/).*)'] };
