import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify';
import { type Item, serializeList } from 'structured-headers';
import { array, boolean, type InferType, number, object, string } from 'yup';
import { Problem } from './problem';

const ruleShape = object({
  name: string().required(),
  requests: number().integer().min(1).required(),
  /** Real seconds. */
  seconds: number().positive().required(),
  /** Whether answers tell what is left; else it is only refused when that is enough. */
  told: boolean().default(true),
});

/** So many requests of one account in each span of time. */
export type AllowanceRule = InferType<typeof ruleShape>;

/** What each account may ask of a stand-in. */
export class Allowance {
  private readonly asked = new Map<string, number>();
  private refused = 0;

  /** @param accountOf who asks, by the token; undefined where nobody does */
  constructor(
    private rules: AllowanceRule[],
    private readonly accountOf: (request: FastifyRequest) => string | undefined,
  ) {}

  /** Counts a request, and refuses it where that is one too many. */
  private count(request: FastifyRequest, reply: FastifyReply): void {
    const account = this.accountOf(request);
    if (account === undefined) return;
    const left = this.rules.map((rule) => {
      const span = Math.floor(Date.now() / (rule.seconds * 1000));
      const key = `${rule.name} ${account}`;
      const inSpan = `${key} ${span}`;
      const asked = (this.asked.get(inSpan) ?? 0) + 1;
      this.asked.delete(`${key} ${span - 1}`);
      this.asked.set(inSpan, asked);
      const seconds = Math.ceil((span + 1) * rule.seconds - Date.now() / 1000);
      return { ...rule, left: rule.requests - asked, again: Math.max(1, seconds) };
    });
    const told = left.filter((rule) => rule.told);
    if (told.length > 0) {
      const item = (name: string, fields: Record<string, number>): Item => [name, new Map(Object.entries(fields))];
      const policy = told.map(({ name, requests, seconds }) =>
        item(name, { q: requests, w: Math.max(1, Math.round(seconds)) }),
      );
      reply.header('ratelimit-policy', serializeList(policy));
      const now = told.map(({ name, left, again }) => item(name, { r: Math.max(0, left), t: again }));
      reply.header('ratelimit', serializeList(now));
    }
    const spent = left.filter((rule) => rule.left < 0).map(({ again }) => again);
    if (spent.length === 0) return;
    this.refused += 1;
    throw new Problem(429, 'Too many requests', 'Come back later', { retryAfter: Math.max(...spent) });
  }

  /** Counts what comes with a token, and lets tests set the rules and see how often one was refused. */
  register(server: FastifyInstance): void {
    server.get('/control/allowance', async () => ({ rules: this.rules, refused: this.refused }));
    server.put('/control/allowance', async (request) => {
      this.rules = await array(ruleShape).required().validate(request.body);
      this.asked.clear();
      this.refused = 0;
      return this.rules;
    });
    server.addHook('onRequest', async (request, reply) => this.count(request, reply));
  }
}
