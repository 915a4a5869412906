import pino from 'pino';
import { settings } from '@/store/settings';

/** One line of JSON an event. Anything that could carry a secret is taken out by name. */
export const log = pino({
  level: settings().logLevel,
  base: { process: process.env.KETTLE_PROCESS ?? 'kettle' },
  redact: {
    paths: ['*.access', '*.refresh', '*.authorization', '*.verifier', 'tokens', '*.tokens', 'code', '*.code'],
    censor: '…',
  },
});
