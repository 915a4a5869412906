import { type NoticeSettings, PLAIN_NOTICES } from '@/core/notices';
import { type Database, fromJson, toJson } from '@/store/database';
import { isSealedAnew, seal, unseal } from '@/store/vault';

const ROW = { id: 1 };

interface Row {
  settings: string;
  sealedPassword: string | null;
  sealedSecret: string | null;
}

/** How a manager wants to be told, with the password of the mail server and the secret that webhooks are signed with. */
export interface KeptNoticeSettings {
  settings: NoticeSettings;
  password: string | undefined;
  secret: string | undefined;
}

/** How a manager wants to be told; nothing is set at first. */
export async function noticeSettings(db: Database): Promise<KeptNoticeSettings> {
  const row: Row | undefined = await db('noticeSettings').where(ROW).first();
  return {
    settings: await noticeWays(db),
    password: row?.sealedPassword ? unseal(row.sealedPassword) : undefined,
    secret: row?.sealedSecret ? unseal(row.sealedSecret) : undefined,
  };
}

/** The same without what is secret: no key is needed to read it. */
export async function noticeWays(db: Database): Promise<NoticeSettings> {
  const row: Pick<Row, 'settings'> | undefined = await db('noticeSettings').where(ROW).first('settings');
  return { ...PLAIN_NOTICES, ...fromJson<NoticeSettings>(row?.settings ?? null) };
}

/** Keeps all of it; password and secret are sealed. */
export async function keepNoticeSettings(db: Database, kept: KeptNoticeSettings): Promise<void> {
  const { settings, password, secret } = kept;
  const row = {
    settings: toJson(settings),
    sealedPassword: password ? seal(password) : null,
    sealedSecret: secret ? seal(secret) : null,
  };
  await db('noticeSettings')
    .insert({ ...ROW, ...row })
    .onConflict('id')
    .merge();
}

/** Seals what is secret with the newest key, where it is sealed with an older one. */
export async function sealNoticeSecretsAnew(db: Database): Promise<void> {
  const row: Row | undefined = await db('noticeSettings').where(ROW).first();
  const sealed = [row?.sealedPassword, row?.sealedSecret].filter((each) => each !== null && each !== undefined);
  if (sealed.some((each) => !isSealedAnew(each))) await keepNoticeSettings(db, await noticeSettings(db));
}
