import type { FastifyInstance, FastifyRequest } from 'fastify';
import { object, string } from 'yup';
import { page } from '../page';
import { Problem } from '../problem';
import type { Permissions, Person } from './permissions';
import { provesChallenge } from './pkce';

/** What one stand-in says of itself to people who sign in and to programs that ask. */
export interface OAuthSite {
  name: string;
  address: string;
  people: Person[];
  clientIds: string[];
  /** Each scope with what it permits, in words. */
  scopes: Record<string, string>;
  style: string;
}

const askShape = object({
  response_type: string().oneOf(['code']).required(),
  client_id: string().required(),
  redirect_uri: string().required(),
  scope: string().default(''),
  state: string().required(),
  // RFC 7636, section 4.3; a plain challenge is not taken.
  code_challenge: string()
    .matches(/^[A-Za-z0-9_-]{43}$/)
    .required(),
  code_challenge_method: string().oneOf(['S256']).required(),
});

/** RFC 8252, section 7.3: a loopback address may come back to any port. */
const isLoopback = (address: string) => /^http:\/\/(127\.0\.0\.1|localhost|\[::1\]):\d+\//.test(address);

/** OAuth 2.0 for a stand-in: metadata, sign-in, consent, tokens, revocation. */
export function registerOAuth(server: FastifyInstance, site: OAuthSite, permissions: Permissions): void {
  const signedIn = (request: FastifyRequest) => site.people.find((person) => person.id === request.cookies.person);

  // RFC 8414, section 3.
  server.get('/.well-known/oauth-authorization-server', async () => ({
    issuer: site.address,
    authorization_endpoint: `${site.address}/oauth/authorize`,
    token_endpoint: `${site.address}/oauth/token`,
    revocation_endpoint: `${site.address}/oauth/revoke`,
    scopes_supported: Object.keys(site.scopes),
    response_types_supported: ['code'],
    grant_types_supported: ['authorization_code', 'refresh_token'],
    token_endpoint_auth_methods_supported: ['none'],
    revocation_endpoint_auth_methods_supported: ['none'],
    code_challenge_methods_supported: ['S256'],
    authorization_response_iss_parameter_supported: true,
  }));

  const readAsk = async (from: unknown) => {
    const ask = await askShape.validate(from);
    if (!site.clientIds.includes(ask.client_id)) throw new Problem(400, 'Unknown program', ask.client_id);
    if (!isLoopback(ask.redirect_uri))
      throw new Problem(400, 'Wrong way back', 'The redirect address is not known here');
    return ask;
  };

  server.get('/oauth/authorize', async (request, reply) => {
    const ask = await readAsk(request.query);
    const person = signedIn(request);
    reply.header('content-type', 'text/html; charset=utf-8').header('x-frame-options', 'DENY');
    const hidden = Object.entries(ask).map(([name, value]) => (
      <input key={name} type="hidden" name={name} value={String(value)} />
    ));
    if (!person) return page(`Sign in to ${site.name}`, site.style, <SignIn site={site} hidden={hidden} />);
    const scopes = ask.scope.split(' ').filter((scope) => scope in site.scopes);
    return page(
      `Permit a program · ${site.name}`,
      site.style,
      <Consent site={site} person={person} scopes={scopes} hidden={hidden} />,
    );
  });

  server.post('/oauth/sign-in', async (request, reply) => {
    const { personId, ...ask } = await askShape.shape({ personId: string().required() }).validate(request.body);
    if (!site.people.some((person) => person.id === personId)) throw new Problem(400, 'Unknown person', personId);
    reply.setCookie('person', personId, { path: '/', httpOnly: true, sameSite: 'lax' });
    return reply.redirect(`/oauth/authorize?${new URLSearchParams(ask as Record<string, string>)}`, 303);
  });

  server.post('/oauth/sign-out', async (request, reply) => {
    const { personId: _, ...ask } = await askShape.shape({ personId: string() }).validate(request.body);
    reply.clearCookie('person', { path: '/' });
    return reply.redirect(`/oauth/authorize?${new URLSearchParams(ask as Record<string, string>)}`, 303);
  });

  server.post('/oauth/consent', async (request, reply) => {
    const person = signedIn(request);
    if (!person) throw new Problem(401, 'Not signed in', 'Sign in first');
    const ask = await readAsk(request.body);
    const { answer, channel } = request.body as { answer?: string; channel?: string | string[] };
    const back = new URL(ask.redirect_uri);
    back.searchParams.set('state', ask.state);
    back.searchParams.set('iss', site.address);
    const channelIds = [channel ?? []].flat().filter((id) => person.channels.some((each) => each.id === id));
    if (answer !== 'permit' || channelIds.length === 0) {
      back.searchParams.set('error', 'access_denied');
      if (answer === 'permit') back.searchParams.set('error_description', 'No channel was chosen');
      return reply.redirect(back.href, 303);
    }
    const grant = { personId: person.id, clientId: ask.client_id, scope: ask.scope, channelIds };
    back.searchParams.set('code', permissions.permit(grant, ask.code_challenge, ask.redirect_uri));
    return reply.redirect(back.href, 303);
  });

  server.post('/oauth/token', async (request, reply) => {
    const body = (request.body ?? {}) as Record<string, string>;
    const refuse = (error: string) => reply.status(400).send({ error });
    let tokens: ReturnType<Permissions['redeem']>;
    if (body.grant_type === 'authorization_code') {
      tokens = permissions.redeem('code', body.code ?? '', (issued) => {
        const same = provesChallenge(body.code_verifier ?? '', issued.challenge ?? '');
        return same && issued.redirectUri === body.redirect_uri;
      });
    } else if (body.grant_type === 'refresh_token') {
      tokens = permissions.redeem('refresh', body.refresh_token ?? '', () => true);
    } else return refuse('unsupported_grant_type');
    if (!tokens) return refuse('invalid_grant');
    return reply.header('cache-control', 'no-store').send(tokens);
  });

  server.post('/oauth/revoke', async (request, reply) => {
    permissions.revoke(((request.body ?? {}) as Record<string, string>).token ?? '');
    return reply.status(200).send();
  });

  server.get('/control/permissions', async () => permissions.inForce());
  server.post('/control/expire-tokens', async () => permissions.expireAccess());
  server.post('/control/take-back', async (request) =>
    permissions.takeBack(((request.body ?? {}) as { personId?: string }).personId),
  );
}

type Hidden = { hidden: React.ReactNode };

function SignIn({ site, hidden }: { site: OAuthSite } & Hidden) {
  return (
    <main className="sheet">
      <p className="brand">{site.name}</p>
      <h1>Who are you here?</h1>
      <form method="post" action="/oauth/sign-in">
        {hidden}
        {site.people.map((person) => (
          <button key={person.id} name="personId" value={person.id} type="submit" className="person">
            <b>{person.name}</b>
            <span>{person.email}</span>
          </button>
        ))}
      </form>
    </main>
  );
}

function Consent({ site, person, scopes, hidden }: { site: OAuthSite; person: Person; scopes: string[] } & Hidden) {
  return (
    <main className="sheet">
      <p className="brand">{site.name}</p>
      <h1>Kettle Drop asks for your permission</h1>
      <p>
        Signed in as <b>{person.name}</b>, {person.email}
      </p>
      <form method="post" action="/oauth/consent">
        {hidden}
        <h2>It will be able to</h2>
        <ul>
          {scopes.map((scope) => (
            <li key={scope}>{site.scopes[scope]}</li>
          ))}
        </ul>
        <h2>For these channels</h2>
        {person.channels.map((channel) => (
          <label key={channel.id} className="pick">
            <input type="checkbox" name="channel" value={channel.id} defaultChecked />
            <span>
              <b>{channel.name}</b>
              <br />
              {channel.about}
            </span>
          </label>
        ))}
        <p className="fine">You can take this back at any time. It will never see your password.</p>
        <div className="answers">
          <button name="answer" value="permit" type="submit">
            Permit
          </button>
          <button name="answer" value="refuse" type="submit" className="quiet">
            Do not permit
          </button>
          <button formAction="/oauth/sign-out" type="submit" className="quiet">
            Someone else
          </button>
        </div>
      </form>
    </main>
  );
}
