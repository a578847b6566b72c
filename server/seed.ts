import type { DataSource, EntityManager } from 'typeorm';
import type { NewBoard } from '../contract/board';
import type { BuildDocument } from '../core/document';
import type { ShopSnapshot } from '../core/kit';
import { addBoards } from './boards';
import { ShopEntity } from './entities';
import { insertJob } from './savejob';
import { createShop, shopCaller } from './kit';

/** A shop with its boards and jobs, as plain data. */
export interface Seed {
  shop: ShopSnapshot;
  boards: readonly NewBoard[];
  jobs: readonly BuildDocument[];
  /** It is made up, to look around in. */
  demo?: boolean;
}

/** Puts a shop with its boards and jobs there, through the same doors as everybody's; gives its id. */
export async function plant(
  manager: EntityManager,
  { shop, boards, jobs, demo = false }: Seed,
  member: string,
): Promise<string> {
  const caller = shopCaller(await createShop(manager, shop, demo), member);
  const start = Date.now() - jobs.length * 60_000;
  for (const [i, build] of jobs.entries())
    await insertJob(manager, caller, build, new Date(start + i * 60_000));
  await addBoards(manager, caller, boards);
  return caller.shop;
}

/** Puts a shop into a database that never had one. */
export const seedWith =
  (seed: Seed) =>
  async (source: DataSource): Promise<void> =>
    source.transaction(async (manager) => {
      if ((await manager.count(ShopEntity)) === 0) await plant(manager, seed, seed.shop.name);
    });
