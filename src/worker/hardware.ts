import { log } from '@/desk/log';
import { hardwareHere } from '@/media/rendition/hardware';

let tried: ReturnType<typeof hardwareHere> | undefined;

/** The graphics hardware that encodes on this machine, tried once. */
export function hardware(): ReturnType<typeof hardwareHere> {
  tried ??= hardwareHere().then((found) => {
    if (found.size > 0)
      log.info({ encoders: [...found.values()].map(({ name }) => name) }, 'graphics hardware encodes');
    return found;
  });
  return tried;
}
