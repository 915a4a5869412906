import { object } from 'yup';
import { transaction } from '@/store/database';
import { announce } from '@/store/feed';
import { lockThing } from '@/store/queue/locks';
import { allShelfLinks } from '@/store/record/shelf';
import { change, SHELF_SUBJECT } from '../changes/changes';
import { DeskError, found } from '../desk-error';
import { shelfNameShape, urlShape } from '../layers/values-shape';
import { trimmed } from '../text-shape';
import { checkUnchanged, partedOn } from '../video/made-on';

const linkShape = object({
  name: shelfNameShape().required('Give the link a name that texts use it by.'),
  label: trimmed().max(200, 'The words of a link have at most 200 characters.').defined(),
  url: urlShape().required('Give the link its address.'),
}).noUnknown();

/** Puts a new link on the shelf. @throws DeskError where there is one of that name */
export async function newShelfLink(input: unknown): Promise<void> {
  const link = await linkShape.validate(input, { stripUnknown: false });
  await transaction(async (trx) => {
    await lockThing(trx, SHELF_SUBJECT);
    const isTaken = (await allShelfLinks(trx)).some(({ name }) => name === link.name);
    if (isTaken) throw new DeskError('not taken', `There is a link called “${link.name}” already; change that one.`);
    await change(trx, SHELF_SUBJECT, 'shelfLink', { name: link.name, link: null }, { name: link.name, link });
    await announce(trx, 'layers', SHELF_SUBJECT);
  });
}

const editShape = linkShape.pick(['label', 'url']).partial();

/**
 * Changes the words or the address of a link; every text that is not sent yet uses it as it is then.
 * @param input the fields; and `on`, by field, what stood there where the change was made
 * @throws ChangedMeanwhile where such a field has another value now
 */
export async function editShelfLink(name: string, input: unknown): Promise<void> {
  const { on, fields } = await partedOn(input);
  const edit = await editShape.validate(fields, { stripUnknown: false });
  await transaction(async (trx) => {
    await lockThing(trx, SHELF_SUBJECT);
    const link = found(
      (await allShelfLinks(trx)).find((each) => each.name === name),
      'link',
    );
    if (edit.label !== undefined) checkUnchanged(on, 'label', link.label, edit.label);
    if (edit.url !== undefined) checkUnchanged(on, 'url', link.url, edit.url);
    const after = { ...link, ...Object.fromEntries(Object.entries(edit).filter(([, value]) => value !== undefined)) };
    await change(trx, SHELF_SUBJECT, 'shelfLink', { name, link }, { name, link: after });
    await announce(trx, 'layers', SHELF_SUBJECT);
  });
}

/** Takes a link off the shelf. Texts that still use it are not sent before that is settled. */
export async function removeShelfLink(name: string): Promise<void> {
  await transaction(async (trx) => {
    await lockThing(trx, SHELF_SUBJECT);
    const link = found(
      (await allShelfLinks(trx)).find((each) => each.name === name),
      'link',
    );
    await change(trx, SHELF_SUBJECT, 'shelfLink', { name, link }, { name, link: null });
    await announce(trx, 'layers', SHELF_SUBJECT);
  });
}
