import { randomBytes } from 'node:crypto';
import { PassThrough, type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { mediaType } from '@/core/delivery';
import type { CarriedFile, Session } from '../contract';
import { type Explain, errorForStatus, readJson } from '../json-api';
import { streamToSite } from '../stream-request';

/** A form with one file in it, before and after its bytes (RFC 7578, section 4). */
export interface FormFrame {
  boundary: string;
  head: Buffer;
  tail: Buffer;
}

/**
 * The frame of a form whose one part is a file. A file name goes percent-encoded where a header could not hold it as it is
 * (RFC 7578, section 4.2, and the WHATWG's form-data encoding).
 * @param field the name of the form’s field
 * @param type the media type of the file
 */
export function formFrame(field: string, fileName: string, type: string): FormFrame {
  const boundary = `kettle-${randomBytes(18).toString('hex')}`;
  const name = fileName.replace(/[\r\n"]/g, (sign) => encodeURIComponent(sign));
  const head = [
    `--${boundary}`,
    `Content-Disposition: form-data; name="${field}"; filename="${name}"`,
    `Content-Type: ${type}`,
    '',
    '',
  ].join('\r\n');
  return { boundary, head: Buffer.from(head), tail: Buffer.from(`\r\n--${boundary}--\r\n`) };
}

/** The bytes of a form, one after the other; never more than a few buffers at a time. */
function framed({ head, tail }: FormFrame, bytes: Readable): Readable {
  const whole = new PassThrough({ highWaterMark: 1024 * 1024 });
  whole.write(head);
  pipeline(bytes, whole, { end: false }).then(
    () => whole.end(tail),
    (error: Error) => whole.destroy(error),
  );
  return whole;
}

/**
 * Carries a file as one multipart/form-data POST. What breaks off starts from the beginning.
 * @param field the name of the form’s field
 * @param onProgress hears how many bytes of the file are over
 * @param explain how the site words its errors
 * @throws SiteError; where `signal` aborts, its reason
 */
export async function carryAsForm(
  session: Session,
  address: string,
  field: string,
  file: CarriedFile,
  onProgress: (bytes: number) => void,
  signal: AbortSignal,
  explain: Explain,
): Promise<void> {
  const frame = formFrame(field, file.fileName, mediaType(file.fileName));
  onProgress(0);
  const answer = await streamToSite({
    session,
    method: 'POST',
    address,
    headers: {
      authorization: `Bearer ${await session.accessToken()}`,
      'content-type': `multipart/form-data; boundary=${frame.boundary}`,
    },
    length: frame.head.length + file.size + frame.tail.length,
    body: framed(frame, file.open(0)),
    onProgress: (bytes) => onProgress(Math.max(0, Math.min(file.size, bytes - frame.head.length))),
    signal,
  });
  if (answer.status >= 300) {
    const says = explain(readJson(answer.body)) ?? `The site answers ${answer.status}`;
    throw errorForStatus(answer.status, says, answer.headers['retry-after']);
  }
  onProgress(file.size);
}
