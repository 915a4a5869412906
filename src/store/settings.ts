import path from 'node:path';
import { number, object, string } from 'yup';

const port = (fallback: number) => number().integer().min(1).max(65535).default(fallback).required();

const shape = object({
  KETTLE_PORT: port(7300),
  KETTLE_DB_PORT: port(7306),
  KETTLE_SITES_PORT: port(7310),
  KETTLE_DATABASE_URL: string(),
  KETTLE_HOME: string().default('.kettle').required(),
  KETTLE_INBOX: string(),
  KETTLE_LEASE_SECONDS: number().min(1).max(600).default(15).required(),
  KETTLE_HOLD_SECONDS: number().min(0).max(600).default(10).required(),
  KETTLE_LATE_CALL_SECONDS: number().min(1).max(600).default(60).required(),
  KETTLE_READ_SECONDS: number().min(0).max(604_800).default(86_400).required(),
  KETTLE_WATCH_SECONDS: number().min(0).max(3600).default(60).required(),
  KETTLE_DATES: string()
    .oneOf(['ask', 'day first', 'month first'] as const)
    .default('ask')
    .required(),
  KETTLE_LOG_LEVEL: string().oneOf(['debug', 'info', 'warn', 'error', 'silent']).default('info').required(),
});

/** Where Kettle Drop listens and keeps its things. */
export interface Settings {
  webPort: number;
  databasePort: number;
  /** Where the database is, where it is not the private one of this machine. */
  databaseUrl: string | undefined;
  sitesPort: number;
  /** Absolute path of the folder for data, files and logs. */
  home: string;
  /** Absolute path of the folder that is watched for finished videos, where one is. */
  inbox: string | undefined;
  /** How long a worker's claim holds without a heartbeat. */
  leaseSeconds: number;
  /** For how long a person's word to open something can be taken back before it takes effect. */
  holdSeconds: number;
  /** For how long a call to a site may still take effect whose answer has not come. */
  lateCallSeconds: number;
  /** How often a live video is read again at its site; 0 is never. */
  readSeconds: number;
  /** How often what is held is looked at, on sites that tell of many videos at once; 0 is never. */
  watchSeconds: number;
  /** Which number comes first in a date such as 12/04 that somebody types; asked where that is not said. */
  dateOrder: 'ask' | 'day first' | 'month first';
  logLevel: string;
}

let inForce: Settings | undefined;

/** Takes another folder from here on. */
export function takeHome(home: string): void {
  inForce = { ...settings(), home };
}

/** The settings from the environment, each with its default. @throws ValidationError naming the variable that is wrong. */
export function settings(): Settings {
  if (inForce) return inForce;
  const env = shape.validateSync({
    KETTLE_PORT: process.env.KETTLE_PORT,
    KETTLE_DB_PORT: process.env.KETTLE_DB_PORT,
    KETTLE_SITES_PORT: process.env.KETTLE_SITES_PORT,
    KETTLE_DATABASE_URL: process.env.KETTLE_DATABASE_URL || undefined,
    KETTLE_HOME: process.env.KETTLE_HOME,
    KETTLE_INBOX: process.env.KETTLE_INBOX || undefined,
    KETTLE_LEASE_SECONDS: process.env.KETTLE_LEASE_SECONDS,
    KETTLE_HOLD_SECONDS: process.env.KETTLE_HOLD_SECONDS,
    KETTLE_LATE_CALL_SECONDS: process.env.KETTLE_LATE_CALL_SECONDS,
    KETTLE_READ_SECONDS: process.env.KETTLE_READ_SECONDS,
    KETTLE_WATCH_SECONDS: process.env.KETTLE_WATCH_SECONDS,
    KETTLE_DATES: process.env.KETTLE_DATES,
    KETTLE_LOG_LEVEL: process.env.KETTLE_LOG_LEVEL,
  });
  inForce = {
    webPort: env.KETTLE_PORT,
    databasePort: env.KETTLE_DB_PORT,
    databaseUrl: env.KETTLE_DATABASE_URL,
    sitesPort: env.KETTLE_SITES_PORT,
    home: path.resolve(/* turbopackIgnore: true */ env.KETTLE_HOME),
    inbox: env.KETTLE_INBOX && path.resolve(/* turbopackIgnore: true */ env.KETTLE_INBOX),
    leaseSeconds: env.KETTLE_LEASE_SECONDS,
    holdSeconds: env.KETTLE_HOLD_SECONDS,
    lateCallSeconds: env.KETTLE_LATE_CALL_SECONDS,
    readSeconds: env.KETTLE_READ_SECONDS,
    watchSeconds: env.KETTLE_WATCH_SECONDS,
    dateOrder: env.KETTLE_DATES,
    logLevel: env.KETTLE_LOG_LEVEL,
  };
  return inForce;
}
