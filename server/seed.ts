import type { DataSource } from 'typeorm';
import type { NewBoard } from '../contract/board';
import type { BuildDocument } from '../core/document';
import type { ShopSnapshot } from '../core/kit';
import { addBoards } from './boards';
import type { Caller } from './caller';
import { ShopEntity } from './entities';
import { insertJob } from './jobs';
import { createShop } from './kit';

/** A shop with its boards and jobs, as plain data. */
export interface Seed {
  shop: ShopSnapshot;
  boards: readonly NewBoard[];
  jobs: readonly BuildDocument[];
}

/** Puts a shop into a database that has none, through the same doors as everybody's. */
export const seedWith =
  ({ shop, boards, jobs }: Seed) =>
  async (source: DataSource): Promise<void> =>
    source.transaction(async (manager) => {
      if ((await manager.count(ShopEntity)) > 0) return;
      const caller: Caller = { shop: await createShop(manager, shop), member: shop.name, role: 'owner' };
      const start = Date.now() - jobs.length * 60_000;
      for (const [i, build] of jobs.entries())
        await insertJob(manager, caller, build, new Date(start + i * 60_000));
      await addBoards(manager, caller, boards);
    });
