import type { FastifyInstance } from 'fastify';

/** An error as RFC 9457 problem details describe it. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly more: Record<string, unknown> = {},
  ) {
    super(`${title}: ${detail}`);
  }
}

/** Answers every error with problem details (RFC 9457, section 3). */
export function answerProblems(server: FastifyInstance): void {
  server.setErrorHandler((error, _request, reply) => {
    const problem =
      error instanceof Problem
        ? error
        : new Problem((error as { statusCode?: number }).statusCode ?? 500, 'Not possible', (error as Error).message);
    const retryAfter = problem.more.retryAfter;
    if (typeof retryAfter === 'number') reply.header('retry-after', String(retryAfter));
    return reply
      .status(problem.status)
      .header('content-type', 'application/problem+json')
      .send({
        type: 'about:blank',
        title: problem.title,
        status: problem.status,
        detail: problem.detail,
        ...problem.more,
      });
  });
}
