/** The API's generated client, with the token that edits must carry, and one way for a call to fail. */
import createClient, { type Middleware } from 'openapi-fetch';
import { underWay } from './underway.svelte';
import { takeAhead } from './ahead';
import type { paths } from '../../generated/schema';
import type { Fault } from './types';

/** A call that was refused, in the server's own words; `status` 0 means that the server was not reached. */
export class Refused extends Error {
  readonly status: number;
  readonly fault: Fault;

  constructor(status: number, fault: Fault) {
    super(fault.message);
    this.status = status;
    this.fault = fault;
  }

  /** Whether trying again later may help: the server was not reached, or failed itself. */
  get passing(): boolean {
    return this.status === 0 || this.status >= 500;
  }
}

let token = '';

/** Remember the token of the session; it changes when somebody signs in. */
export function carry(csrf: string): void {
  token = csrf;
}

const edits: Middleware = {
  onRequest({ request }) {
    if (request.method !== 'GET') request.headers.set('X-CSRFToken', token);
    return request;
  },
};

/** A call on a bad line may hang for good, and what waits behind it with it. */
const LONGEST_CALL_MS = 20_000;

let renew: () => Promise<boolean> = () => Promise.resolve(false);

/** Say how a session is renewed where a call finds none, or another token. */
export function whenRefused(how: () => Promise<boolean>): void {
  renew = how;
}

const timed = (request: Request) =>
  (request.method === 'GET' ? takeAhead(request.url) : undefined) ??
  fetch(request, { signal: AbortSignal.any([request.signal, AbortSignal.timeout(LONGEST_CALL_MS)]) });

/** A call that finds no session waits for one and is made again: the page and what is on it stay. */
async function withSession(request: Request): Promise<Response> {
  const again = request.clone();
  const response = await timed(request);
  const lost = response.status === 401 || (response.status === 403 && response.headers.has('X-Wobble-Token'));
  if (!lost || request.url.endsWith('/api/session') || !(await renew())) return response;
  if (again.method !== 'GET') again.headers.set('X-CSRFToken', token);
  return timed(again);
}

export const client = createClient<paths>({
  baseUrl: location.origin,
  fetch: (request) => underWay.watch(withSession(request)),
});
client.use(edits);

/** The value of a call's answer; throws Refused if there is none.
 *  The caller names its type, as the client's own would turn the schema's pairs into lists of any length. */
export async function value<T>(
  call: Promise<{ data?: unknown; error?: unknown; response: Response }>,
): Promise<T> {
  let answer;
  try {
    answer = await call;
  } catch {
    const fault = { message: 'Wobble cannot be reached.', mend: 'Check the connection.' };
    throw new Refused(0, { code: 'offline', path: '', revision: null, sides: [], theirs: null, ...fault });
  }
  if (answer.response.ok && answer.data !== undefined) return answer.data as T;
  throw new Refused(answer.response.status, asFault(answer.error, answer.response.status));
}

/** Send a file and tell how much of it has gone: the one thing that fetch cannot. */
export function upload<T>(path: string, file: Blob, onprogress: (share: number) => void): Promise<T> {
  const sent = new Promise<{ data?: unknown; error?: unknown; response: Response }>((done, failed) => {
    const call = new XMLHttpRequest();
    call.open('POST', path);
    call.setRequestHeader('X-CSRFToken', token);
    call.responseType = 'json';
    call.upload.onprogress = (e) => onprogress(e.lengthComputable ? e.loaded / e.total : 0);
    call.onload = () => {
      const response = new Response(null, { status: call.status });
      done(
        response.ok
          ? { data: call.response as unknown, response }
          : { error: call.response as unknown, response },
      );
    };
    call.onerror = call.onabort = () => failed(new TypeError('not reached'));
    call.send(file);
  });
  return value<T>(sent);
}

function asFault(error: unknown, status: number): Fault {
  if (typeof error === 'object' && error !== null && 'message' in error) return error as Fault;
  const message = `The server could not do that (${status}).`;
  return {
    code: 'server',
    message,
    mend: 'Try again in a moment.',
    path: '',
    revision: null,
    sides: [],
    theirs: null,
  };
}
