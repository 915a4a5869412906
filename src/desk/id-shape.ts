import { validate } from 'uuid';
import { string } from 'yup';

/** The shape of an id. Yup's own test knows no UUIDv7. */
export function idShape() {
  return string().test(
    'id',
    ({ path }) => `${path} is no id`,
    (value) => value === undefined || value === null || validate(value),
  );
}
