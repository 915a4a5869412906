import { fromJson, toJson, transaction } from '@/store/database';

type Asked = { key: string }[];

/** Forgets what a site was asked of who sees a video, now that it has answered, whoever has the drop in hand. */
export async function noteAnswered(dropId: string, key: string): Promise<void> {
  await transaction(async (trx) => {
    const row: { asking: string | null } | undefined = await trx('drops')
      .where({ id: dropId })
      .forUpdate()
      .first('asking');
    const left = (fromJson<Asked>(row?.asking ?? null) ?? []).filter((each) => each.key !== key);
    await trx('drops')
      .where({ id: dropId })
      .update({ asking: left.length > 0 ? toJson(left) : null });
  });
}
