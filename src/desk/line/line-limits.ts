import { number, object, string } from 'yup';
import { EVERYTHING, type LineLimit } from '@/core/line';
import { database, transaction } from '@/store/database';
import { announce } from '@/store/feed';
import { allLineLimits, setLineLimit } from '@/store/queue/line-limits';
import { channelById } from '@/store/site/channels';
import { found } from '../desk-error';
import { isZone } from '../zone-shape';

const minute = () => number().integer().min(0).max(1439).required();

const limitShape = object({
  owner: string().max(40).required(),
  limit: object({
    kilobits: number()
      .integer()
      .min(64, 'A limit is at least 0.064 Mbit/s.')
      .max(10_000_000, 'A limit is at most 10,000 Mbit/s.')
      .required('Say how much uploads may take.'),
    hours: object({
      from: minute(),
      to: minute(),
      zone: string().required().test('zone', 'This is no time zone.', isZone),
    })
      .noUnknown()
      .default(undefined),
  })
    .noUnknown()
    .nullable()
    .defined(),
}).noUnknown();

/** The limits of the line. */
export async function lookAtLineLimits(): Promise<LineLimit[]> {
  return allLineLimits(database());
}

/** Sets a limit for a channel or for everything, or takes it away; it takes hold within a second. */
export async function limitLine(input: unknown): Promise<void> {
  const { owner, limit } = await limitShape.validate(input, { stripUnknown: false });
  await transaction(async (trx) => {
    if (owner !== EVERYTHING) found(await channelById(trx, owner), 'channel');
    await setLineLimit(trx, owner, limit ? { ...limit, hours: limit.hours ?? undefined } : undefined);
    await announce(trx, 'channels', owner);
  });
}
