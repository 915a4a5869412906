import { randomBytes } from 'node:crypto';
import { mkdirSync } from 'node:fs';
import path from 'node:path';
import fastify from 'fastify';
import { simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import { page } from '../shared/page';
import { Records } from '../shared/records';

/** A mail as it was caught. */
interface Mail {
  id: string;
  at: string;
  messageId: string;
  from: string;
  to: string;
  subject: string;
  text: string;
}

const STYLE = `
body{margin:0;background:#eef1ee;color:#202a25;font:16px/1.5 "DejaVu Sans",sans-serif}
main{max-width:820px;margin:0 auto;padding:24px}
h1{font-size:22px}article{background:#fff;border:1px solid #cfd8d1;border-radius:6px;padding:14px 18px;margin-top:12px}
h2{font-size:17px;margin:0 0 4px}p{margin:0;color:#55625a;font-size:14px}pre{white-space:pre-wrap;font:inherit;margin:10px 0 0}
`;

const MOST_KEPT = 200;
const BUSY = 451;

/**
 * Catches every mail that is sent to it, for whomever, and shows them on a page. Nothing leaves this machine.
 * @param port of the page; mail comes in at the next one
 */
export async function mailCatcher(folder: string, port: number): Promise<{ close(): Promise<unknown> }> {
  mkdirSync(folder, { recursive: true });
  const mails = new Records<Mail>(path.join(folder, 'mails'));
  const newest = () => mails.all().sort((a, b) => b.at.localeCompare(a.at));
  let away = false;
  const smtp = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    onAuth: (auth, _session, done) => done(null, { user: auth.username }),
    onData(stream, _session, done) {
      simpleParser(stream)
        .then((mail) => {
          if (away) return done(Object.assign(new Error('Not now, come back later'), { responseCode: BUSY }));
          const to = Array.isArray(mail.to) ? mail.to.map(({ text }) => text).join(', ') : (mail.to?.text ?? '');
          mails.put({
            ...{ id: randomBytes(8).toString('hex'), at: new Date().toISOString(), messageId: mail.messageId ?? '' },
            ...{ from: mail.from?.text ?? '', to, subject: mail.subject ?? '', text: mail.text ?? '' },
          });
          for (const { id } of newest().slice(MOST_KEPT)) mails.delete(id);
          done();
        })
        .catch(done);
    },
  });
  smtp.on('error', () => undefined);
  const server = fastify({ forceCloseConnections: true });
  server.get('/', async (_request, reply) => {
    reply.type('text/html; charset=utf-8');
    return page(
      'Caught mail',
      STYLE,
      <main>
        <h1>Caught mail</h1>
        {newest().length === 0 && <p>No mail has come yet.</p>}
        {newest().map(({ id, at, to, subject, text }) => (
          <article key={id}>
            <h2>{subject}</h2>
            <p>
              to {to} · {at}
            </p>
            <pre>{text}</pre>
          </article>
        ))}
      </main>,
    );
  });
  server.get('/control/mails', async () => newest());
  server.put('/control/away', async (request) => {
    away = (request.body as { away?: boolean } | null)?.away === true;
    return { away };
  });
  await new Promise<void>((resolve, reject) => {
    smtp.once('error', reject);
    smtp.listen(port + 1, '127.0.0.1', () => resolve());
  });
  await server.listen({ host: '127.0.0.1', port });
  return { close: () => Promise.all([server.close(), new Promise<void>((resolve) => smtp.close(() => resolve()))]) };
}
