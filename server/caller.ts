import type { Request } from 'express';
import type { DataSource } from 'typeorm';
import { isUuid } from './ids';
import { NO_SUCH_SHOP, WHICH_SHOP } from '../contract/api';
import { problem } from './problems';

/** Who asks: of which shop, as whom, and what they may do. Made once for a request and handed down; nobody looks it up. */
export interface Caller {
  shop: string;
  /** What history calls them. */
  member: string;
  role: 'owner';
}

/** A program or a person that named itself, shortened: what history shows. */
const NAME = 80;
/** A shop is looked for again after this, ms: each request would else wait once more for the database. */
const KNOWN_MS = 2000;

/** What is asked of no shop: the list of shops, a new one, the description of the API. */
export const NO_SHOP: Caller = { shop: '', member: '', role: 'owner' };

/** How a request names itself. */
export const memberOf = (request: Request): string =>
  (request.get('Junta-Client') ?? 'the shop').slice(0, NAME);

const known = new WeakMap<DataSource, { at: number; shops: string[] }>();

/** A shop was made or removed: whose shops there are is looked for anew. */
export const forgetShops = (source: DataSource): void => void known.delete(source);

async function shopsOf(source: DataSource): Promise<string[]> {
  const before = known.get(source);
  if (before && before.shops.length > 0 && Date.now() - before.at < KNOWN_MS) return before.shops;
  const rows: { id: string }[] = await source.query('SELECT id FROM shop WHERE removed_at IS NULL LIMIT 100');
  const shops = rows.map(({ id }) => id);
  known.set(source, { at: Date.now(), shops });
  return shops;
}

/**
 * The caller of a request. Nobody signs in yet: whoever reaches the server is the owner of its shop. With several shops in
 * the database a request says which by `Junta-Shop`, or, where it only reads, by `?shop=`; none is taken for it. A program is known by its `Junta-Client`.
 */
export async function callerOf(request: Request, source: DataSource): Promise<Caller> {
  const member = memberOf(request);
  // What a browser fetches by itself, a picture or a stream, carries no header.
  const { shop: inAddress } = request.query;
  const asked =
    request.get('Junta-Shop') ??
    (request.method === 'GET' && typeof inAddress === 'string' && inAddress !== '' ? inAddress : undefined);
  let shops = await shopsOf(source);
  if (asked !== undefined && isUuid(asked) && !shops.includes(asked.toLowerCase())) {
    // It may have been made by another server a moment ago.
    forgetShops(source);
    shops = await shopsOf(source);
  }
  if (asked !== undefined) {
    if (!isUuid(asked) || !shops.includes(asked.toLowerCase()))
      throw problem(
        404,
        NO_SUCH_SHOP,
        'This shop is not here any more: it was removed, or is of another installation.',
      );
    return { shop: asked.toLowerCase(), member, role: 'owner' };
  }
  if (shops.length === 0) throw problem(400, WHICH_SHOP, 'There is no shop yet. Set one up first.');
  if (shops.length > 1)
    throw problem(
      400,
      WHICH_SHOP,
      `There are ${shops.length} shops in this database: say which by the header Junta-Shop.`,
    );
  return { shop: shops[0], member, role: 'owner' };
}
