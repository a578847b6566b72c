import { networkInterfaces } from 'node:os';
import type { RequestHandler } from 'express';
import { problem } from './problems';

/** The addresses this machine has on its networks, those of loopback left out. */
export const networkAddresses = (): string[] =>
  Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .filter(({ internal, scopeid }) => !internal && !scopeid)
    .map(({ address, family }) => (family === 'IPv6' ? `[${address}]` : address));

const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];

/**
 * The host names a server answers to: those of loopback, the address it listens on (all of this machine's where it
 * listens on all), and those of `JUNTA_HOSTS`. A foreign name that was made to resolve to this machine is none of them.
 */
export function ownHosts(listensOn: string, more = ''): string[] {
  const everywhere = ['0.0.0.0', '::'].includes(listensOn);
  const plain = listensOn.includes(':') ? `[${listensOn}]` : listensOn;
  const named = more.split(/[\s,]+/).filter(Boolean);
  return [...new Set([...LOOPBACK, ...(everywhere ? networkAddresses() : [plain]), ...named])].map((name) =>
    name.toLowerCase(),
  );
}

/** The name in a Host header, without its port. */
const nameIn = (host: string): string => host.toLowerCase().replace(/:\d+$/, '');

const CHANGES = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);

/**
 * Answers only to own host names (421 else), and takes changes only from Junta's own pages and programs: a browser says
 * `Sec-Fetch-Site: same-origin`, or, where it sends none because the page came over plain HTTP from another host, an
 * Origin that is this very address; a program that sends neither says `Junta-Client`, which no foreign page can.
 */
export const onlyOwn =
  (hosts: readonly string[]): RequestHandler =>
  (request, _response, next) => {
    const { host, origin } = request.headers;
    if (host === undefined || !hosts.includes(nameIn(host)))
      throw problem(
        421,
        'Not this address',
        `“${(host ?? '').slice(0, 80)}” is no name of this Junta, which answers to ${hosts.join(', ')}. Name others in JUNTA_HOSTS.`,
      );
    const own = origin === undefined || (URL.canParse(origin) && new URL(origin).host === host.toLowerCase());
    if (!own) throw problem(403, 'From elsewhere', 'Requests from other sites are not taken.');
    if (!CHANGES.has(request.method)) return next();
    const site = request.get('Sec-Fetch-Site');
    if (site !== undefined && site !== 'same-origin')
      throw problem(
        403,
        'From elsewhere',
        `Changes are taken from Junta's own pages; this one came “${site}”.`,
      );
    if (site === undefined && origin === undefined && request.get('Junta-Client') === undefined)
      throw problem(
        403,
        'From nobody',
        'A program that changes something says who it is: send the header Junta-Client with its name.',
      );
    next();
  };
