import type { Database } from '@/store/database';

/** What the Board is asked for, kept under a name. */
export interface KeptView {
  name: string;
  /** As an address has it. */
  query: string;
}

/** All kept views, by name. */
export async function allBoardViews(db: Database): Promise<KeptView[]> {
  return db('boardViews').select('name', 'query').orderBy('name');
}

/** Keeps a view; one of that name is replaced. */
export async function putBoardView(db: Database, view: KeptView): Promise<void> {
  await db('boardViews').insert(view).onConflict('name').merge(['query']);
}

export async function deleteBoardView(db: Database, name: string): Promise<void> {
  await db('boardViews').where({ name }).delete();
}
