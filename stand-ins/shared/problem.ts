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

/** How a site words an error. */
export type ProblemShape = (problem: Problem) => { type: string; body: object };

/** Problem details (RFC 9457, section 3). */
export const problemDetails: ProblemShape = ({ title, status, detail, more }) => ({
  type: 'application/problem+json',
  body: { type: 'about:blank', title, status, detail, ...more },
});

/** Answers every error in a site's own form. */
export function answerProblems(server: FastifyInstance, shape: ProblemShape): void {
  server.setErrorHandler((error, _request, reply) => {
    const problem =
      error instanceof Problem
        ? error
        : new Problem((error as { statusCode?: number }).statusCode ?? 500, 'Not possible', (error as Error).message);
    const retryAfter = problem.more.retryAfter;
    if (typeof retryAfter === 'number') reply.header('retry-after', String(retryAfter));
    const { type, body } = shape(problem);
    return reply.status(problem.status).header('content-type', type).send(JSON.stringify(body));
  });
}
