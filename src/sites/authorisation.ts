import * as oauth from 'oauth4webapi';
import type { Tokens } from '@/core/permission/tokens';
import { type Authorisation, SiteError } from './contract';
import { errorForStatus } from './json-api';

/** Shorter than a process has an account's tokens in hand for renewing them. */
const PATIENCE_MILLISECONDS = 25_000;

const CLIENT: oauth.Client = { client_id: 'kettle-drop' };

const isLoopback = (address: string) => ['127.0.0.1', 'localhost', '[::1]'].includes(new URL(address).hostname);

/**
 * OAuth 2.0 authorization code with PKCE for a site that publishes its metadata (RFC 6749, 7636, 8414, 9207).
 * Plain HTTP is spoken to this machine alone.
 */
export function authorisationFor(issuer: string, scopes: Readonly<Record<string, string>>): Authorisation {
  const options = {
    [oauth.allowInsecureRequests]: isLoopback(issuer),
    signal: () => AbortSignal.timeout(PATIENCE_MILLISECONDS),
  };
  let metadata: oauth.AuthorizationServer | undefined;

  const server = async () => {
    if (metadata) return metadata;
    const address = new URL(issuer);
    const answer = await reach(oauth.discoveryRequest(address, { ...options, algorithm: 'oauth2' }));
    metadata = await oauth.processDiscoveryResponse(address, answer);
    return metadata;
  };

  const toTokens = (answer: oauth.TokenEndpointResponse, refresh: string): Tokens => ({
    access: answer.access_token,
    refresh: answer.refresh_token ?? refresh,
    expiresAt: Date.now() + (answer.expires_in ?? 300) * 1000,
  });

  return {
    async start(redirectUri, state) {
      const { authorization_endpoint } = await server();
      if (!authorization_endpoint) throw new SiteError('refused', 'The site does not say where to sign in');
      const verifier = oauth.generateRandomCodeVerifier();
      const address = new URL(authorization_endpoint);
      const ask = {
        response_type: 'code',
        client_id: CLIENT.client_id,
        redirect_uri: redirectUri,
        scope: Object.keys(scopes).join(' '),
        state,
        code_challenge: await oauth.calculatePKCECodeChallenge(verifier),
        code_challenge_method: 'S256',
      };
      for (const [name, value] of Object.entries(ask)) address.searchParams.set(name, value);
      return { address: address.href, verifier };
    },

    async finish(back, redirectUri, state, verifier) {
      const as = await server();
      try {
        const found = oauth.validateAuthResponse(as, CLIENT, back, state);
        const answer = await reach(
          oauth.authorizationCodeGrantRequest(as, CLIENT, oauth.None(), found, redirectUri, verifier, options),
        );
        return toTokens(await oauth.processAuthorizationCodeResponse(as, CLIENT, answer), '');
      } catch (error) {
        if (error instanceof oauth.AuthorizationResponseError) {
          throw new SiteError('refused', error.error_description ?? 'The permission was not given');
        }
        // Another site's answer, or one that somebody has altered (RFC 9207, section 2.4).
        if (error instanceof oauth.OperationProcessingError) {
          throw new SiteError('refused', 'What came back is no answer to this sign-in');
        }
        throw asPermissionError(error);
      }
    },

    async renew(tokens) {
      const as = await server();
      try {
        const answer = await reach(oauth.refreshTokenGrantRequest(as, CLIENT, oauth.None(), tokens.refresh, options));
        return toTokens(await oauth.processRefreshTokenResponse(as, CLIENT, answer), tokens.refresh);
      } catch (error) {
        throw asPermissionError(error);
      }
    },

    async revoke(tokens) {
      const as = await server();
      const answer = await reach(oauth.revocationRequest(as, CLIENT, oauth.None(), tokens.refresh, options));
      await oauth.processRevocationResponse(answer);
    },
  };
}

async function reach(request: Promise<Response>): Promise<Response> {
  const answer = await request.catch((error: Error) => {
    throw new SiteError('unreachable', `The site does not answer (${error.message})`);
  });
  if (answer.status === 429 || answer.status >= 500) {
    const says = `The site answers ${answer.status}`;
    throw errorForStatus(answer.status, says, answer.headers.get('retry-after') ?? undefined);
  }
  return answer;
}

function asPermissionError(error: unknown): unknown {
  if (error instanceof oauth.ResponseBodyError && error.error === 'invalid_grant') {
    return new SiteError('permission', 'The permission was taken back or has run out');
  }
  return error;
}
