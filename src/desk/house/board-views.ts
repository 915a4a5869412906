import { object, string } from 'yup';
import { database } from '@/store/database';
import { allBoardViews, deleteBoardView, type KeptView, putBoardView } from '@/store/record/board-views';
import { trimmed } from '../text-shape';

export type { KeptView } from '@/store/record/board-views';

const MOST_VIEWS = 100;

const nameShape = trimmed().min(1, 'Name the view first.').max(60, 'A name has at most 60 characters.').required();
const viewShape = object({ name: nameShape, query: string().max(1000).defined() }).noUnknown();

/** The views of the Board that are kept by name. */
export const lookAtBoardViews = (): Promise<KeptView[]> => allBoardViews(database());

/** Keeps what the Board shows under a name; one of that name is replaced. All views are returned. @throws ValidationError */
export async function keepBoardView(input: unknown): Promise<KeptView[]> {
  const view = await viewShape
    .test('room', `At most ${MOST_VIEWS} views are kept. Remove one first.`, async () => {
      return (await lookAtBoardViews()).length < MOST_VIEWS;
    })
    .validate(input, { stripUnknown: false });
  await putBoardView(database(), view);
  return lookAtBoardViews();
}

/** Forgets a view. All others are returned. */
export async function forgetBoardView(input: unknown): Promise<KeptView[]> {
  const { name } = await object({ name: nameShape }).noUnknown().validate(input, { stripUnknown: false });
  await deleteBoardView(database(), name);
  return lookAtBoardViews();
}
