import type { Request } from 'express';
import type { DataSource } from 'typeorm';
import { isUuid } from './ids';
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

const known = new WeakMap<DataSource, { at: number; shops: string[] }>();

async function shopsOf(source: DataSource): Promise<string[]> {
  const before = known.get(source);
  if (before && before.shops.length > 0 && Date.now() - before.at < KNOWN_MS) return before.shops;
  const rows: { id: string }[] = await source.query('SELECT id FROM shop LIMIT 100');
  const shops = rows.map(({ id }) => id);
  known.set(source, { at: Date.now(), shops });
  return shops;
}

/**
 * The caller of a request. Nobody signs in yet: whoever reaches the server is the owner of its shop. With several shops in
 * the database a request says which by `Junta-Shop`; none is taken for it. A program is known by its `Junta-Client`.
 */
export async function callerOf(request: Request, source: DataSource): Promise<Caller> {
  const member = (request.get('Junta-Client') ?? 'the shop').slice(0, NAME);
  const asked = request.get('Junta-Shop');
  const shops = await shopsOf(source);
  if (asked !== undefined) {
    if (!isUuid(asked) || !shops.includes(asked.toLowerCase()))
      throw problem(404, 'No such shop', `There is no shop “${asked.slice(0, 60)}” here.`);
    return { shop: asked.toLowerCase(), member, role: 'owner' };
  }
  if (shops.length === 0)
    throw problem(503, 'No shop yet', 'The shop is still being set up. Try again in a moment.');
  if (shops.length > 1)
    throw problem(
      400,
      'Which shop?',
      `There are ${shops.length} shops in this database: say which by the header Junta-Shop.`,
    );
  return { shop: shops[0], member, role: 'owner' };
}
