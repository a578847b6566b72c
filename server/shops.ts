import type { DataSource } from 'typeorm';
import type { ShopsReply, ShopSummary } from '../contract/api';
import type { ShopSnapshot } from '../core/kit';
import { transact } from './database';
import { isUuid } from './ids';
import { KEPT_DAYS, untilWhen } from './joblists';
import { createShop, shopCaller } from './kit';
import { problem } from './problems';
import { giveReceipt } from './receipts';
import { plant, type Seed } from './seed';
import { forgetShops } from './caller';

/* The shops of an installation: one's own beside the demo; a removed one can be brought back for 30 days. */

/** The most shops of one installation. */
const MOST_SHOPS = 50;

interface ShopColumns {
  id: string;
  name: string;
  demo: number;
  removed: Date | null;
  jobs: string | number;
  boards: string | number;
}

const summary = ({ id, name, demo, jobs, boards }: ShopColumns): ShopSummary => ({
  id,
  name,
  demo: Boolean(demo),
  jobs: Number(jobs),
  boards: Number(boards),
});

/** All shops, the oldest first; those removed longer than 30 days ago are gone for good. */
export async function listShops(source: DataSource, seed: Seed | undefined): Promise<ShopsReply> {
  await source.query('DELETE FROM shop WHERE removed_at < ?', [
    new Date(Date.now() - KEPT_DAYS * 86_400_000),
  ]);
  const rows: ShopColumns[] = await source.query(
    `SELECT s.id, s.name, s.demo, s.removed_at AS removed,
       (SELECT COUNT(*) FROM job j WHERE j.shop_id = s.id AND j.deleted_at IS NULL) AS jobs,
       (SELECT COUNT(*) FROM board b WHERE b.shop_id = s.id AND b.live = 1) AS boards
     FROM shop s ORDER BY s.created_at LIMIT 200`,
  );
  return {
    shops: rows.filter(({ removed }) => removed === null).map(summary),
    removed: rows.flatMap((row) =>
      row.removed
        ? [{ ...summary(row), removed: row.removed.toISOString(), until: untilWhen(row.removed) }]
        : [],
    ),
    hasDemo: seed !== undefined,
  };
}

const summaryOf = async (source: DataSource, id: string): Promise<ShopSummary> => {
  const { shops } = await listShops(source, undefined);
  const shop = shops.find((each) => each.id === id);
  if (!shop) throw problem(404, 'No such shop', 'This shop was removed in this moment.');
  return shop;
};

/** Makes a shop; the same write repeated gives the shop it made. */
export async function newShop(
  source: DataSource,
  member: string,
  shop: ShopSnapshot,
  write?: string,
): Promise<ShopSummary> {
  const id = await transact(source, async (manager) => {
    const [before]: { shop: string }[] = write
      ? await manager.query('SELECT shop_id AS shop FROM receipt WHERE write_id = ?', [write])
      : [];
    if (before) return before.shop;
    const [{ there }] = await manager.query('SELECT COUNT(*) AS there FROM shop');
    if (Number(there) >= MOST_SHOPS)
      throw problem(
        409,
        'Too many shops',
        `There are ${there} shops here, those removed in the last ${KEPT_DAYS} days among them; the most is ${MOST_SHOPS}.`,
      );
    const made = await createShop(manager, shop);
    await giveReceipt(manager, shopCaller(made, member), write, { subject: made, version: 1 });
    return made;
  });
  forgetShops(source);
  return summaryOf(source, id);
}

/** Puts the demo there as new, where none is there; refused where this installation came without. */
export async function newDemo(
  source: DataSource,
  member: string,
  seed: Seed | undefined,
): Promise<ShopSummary> {
  if (!seed) throw problem(404, 'No demo', 'This installation came without a demo shop.');
  const { shops } = await listShops(source, seed);
  const there = shops.find(({ demo }) => demo);
  if (there) throw problem(409, 'There already', `The demo shop “${there.name}” is there already.`);
  const id = await transact(source, (manager) => plant(manager, seed, member));
  forgetShops(source);
  return summaryOf(source, id);
}

/** Removes a shop with all that is in it, or brings it back. */
export async function removeShop(
  source: DataSource,
  id: string,
  { removed }: { removed: boolean },
): Promise<{ removed: boolean }> {
  const [row]: { demo: number }[] = isUuid(id)
    ? await source.query('SELECT demo FROM shop WHERE id = ?', [id])
    : [];
  if (!row) throw problem(404, 'No such shop', `There is no shop “${id.slice(0, 60)}” here.`);
  if (!removed && row.demo) {
    const { shops } = await listShops(source, undefined);
    const there = shops.find(({ demo }) => demo);
    if (there && there.id !== id)
      throw problem(
        409,
        'There already',
        `A demo shop is there already. Remove it first, then bring the older one back.`,
      );
  }
  await source.query('UPDATE shop SET removed_at = ? WHERE id = ?', [removed ? new Date() : null, id]);
  forgetShops(source);
  return { removed };
}
