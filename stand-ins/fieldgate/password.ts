import { randomBytes, scryptSync, timingSafeEqual } from 'node:crypto';
import type { FastifyRequest } from 'fastify';
import type { Work } from './work';

const LENGTH = 32;

/** A password as it is kept. */
export function hashOf(password: string): string {
  const salt = randomBytes(16).toString('hex');
  return `${salt}.${scryptSync(password, salt, LENGTH).toString('hex')}`;
}

/** Whether somebody has said the password of a work. */
export function isPassword({ passwordHash = '' }: Work, said: string): boolean {
  const [salt = '', hash = ''] = passwordHash.split('.');
  const kept = Buffer.from(hash, 'hex');
  return kept.length === LENGTH && timingSafeEqual(kept, scryptSync(said, salt, LENGTH));
}

export const cookieOf = (id: string) => `work-${id}`;

/** Whether a browser has said the password of a work, as it is now. */
export const hasPassword = (work: Work, request: FastifyRequest): boolean =>
  work.passwordHash !== undefined && request.cookies[cookieOf(work.id)] === work.passwordHash;
