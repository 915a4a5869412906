import { ValidationError } from 'yup';
import { type SiteAdapter, SiteError } from './contract';

/** What a site answered that is not what it says of itself: no JSON, or JSON of another shape. */
function asSiteError(error: unknown): unknown {
  if (error instanceof ValidationError) {
    return new SiteError('unreachable', `The site answers something else than it should (${error.message})`);
  }
  if (error instanceof SyntaxError) return new SiteError('unreachable', 'The site answers something that is no JSON');
  return error;
}

function wrapped<T extends object>(calls: T): T {
  return new Proxy(calls, {
    get(target, name, receiver) {
      const member: unknown = Reflect.get(target, name, receiver);
      if (name === 'groups' && member) return wrapped(member);
      if (typeof member !== 'function') return member;
      return async (...args: unknown[]) => {
        try {
          return await member.apply(target, args);
        } catch (error) {
          throw asSiteError(error);
        }
      };
    },
  });
}

/** An adapter whose calls throw, of all that the site may do wrong, SiteError and nothing else. */
export function onlySiteErrors(adapter: SiteAdapter): SiteAdapter {
  return wrapped(adapter);
}
