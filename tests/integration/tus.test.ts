import { afterAll, describe, expect, it } from 'vitest';
import { answerArrival } from '@/app/api/arrivals/[[...path]]/arrivals';
import { closeDatabase } from '@/store/database';
import { announcedCut } from '../setup/desk';

afterAll(closeDatabase);

const TUS = { 'tus-resumable': '1.0.0' };
const at = (path: string) => `http://127.0.0.1/api/arrivals${path}`;
const ask = (path: string, method: string, headers: Record<string, string>, body?: string) =>
  answerArrival(new Request(at(path), { method, headers: { ...TUS, ...headers }, body }));

/** The examples of the protocol text (tus resumable upload protocol 1.0.0), with the cut's own id in the place of theirs. */
describe('cuts come in by tus 1.0.0', () => {
  it('Core protocol, Example: HEAD tells 70 of 100, PATCH brings the remaining 30', async () => {
    const cut = await announcedCut({ fileName: 'world_domination_plan.mp4', size: 100 });
    const metadata = `cutId ${Buffer.from(cut.id).toString('base64')}`;
    const made = await ask('', 'POST', { 'upload-length': '100', 'upload-metadata': metadata });
    expect(made.status).toBe(201);
    expect(made.headers.get('location')).toContain(cut.id);
    const first = { 'content-type': 'application/offset+octet-stream', 'upload-offset': '0', 'content-length': '70' };
    expect((await ask(`/${cut.id}`, 'PATCH', first, 'x'.repeat(70))).status).toBe(204);

    const head = await ask(`/${cut.id}`, 'HEAD', {});
    expect(head.status).toBe(200);
    expect(head.headers.get('upload-offset')).toBe('70');
    expect(head.headers.get('tus-resumable')).toBe('1.0.0');
    expect(head.headers.get('cache-control')).toBe('no-store');

    const rest = { 'content-type': 'application/offset+octet-stream', 'upload-offset': '70', 'content-length': '30' };
    const patch = await ask(`/${cut.id}`, 'PATCH', rest, 'y'.repeat(30));
    expect(patch.status).toBe(204);
    expect(patch.headers.get('upload-offset')).toBe('100');
  });

  it('PATCH: a wrong offset is 409, a wrong content type 415, an unknown upload 404', async () => {
    const cut = await announcedCut({ fileName: 'b.mp4', size: 10 });
    const metadata = `cutId ${Buffer.from(cut.id).toString('base64')}`;
    await ask('', 'POST', { 'upload-length': '10', 'upload-metadata': metadata });
    const type = 'application/offset+octet-stream';
    expect((await ask(`/${cut.id}`, 'PATCH', { 'content-type': type, 'upload-offset': '5' }, 'x')).status).toBe(409);
    expect((await ask(`/${cut.id}`, 'PATCH', { 'content-type': 'text/plain', 'upload-offset': '0' }, 'x')).status).toBe(
      415,
    );
    expect((await ask('/nothing', 'HEAD', {})).status).toBe(404);
  });

  it('OPTIONS: tells version and extensions; another version is 412', async () => {
    const options = await ask('', 'OPTIONS', {});
    expect(options.headers.get('tus-version')).toBe('1.0.0');
    expect(options.headers.get('tus-extension')).toContain('creation');
    const old = await answerArrival(new Request(at('/x'), { method: 'HEAD', headers: { 'tus-resumable': '0.2.2' } }));
    expect(old.status).toBe(412);
  });

  it('takes no transfer that was not announced, nor one of another size', async () => {
    const metadata = (id: string) => `cutId ${Buffer.from(id).toString('base64')}`;
    const unknown = metadata('01900000-0000-7000-8000-000000000000');
    expect((await ask('', 'POST', { 'upload-length': '5', 'upload-metadata': unknown })).status).toBe(404);
    const cut = await announcedCut({ fileName: 'c.mp4', size: 10 });
    expect((await ask('', 'POST', { 'upload-length': '11', 'upload-metadata': metadata(cut.id) })).status).toBe(422);
  });
});
