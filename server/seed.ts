import type { DataSource } from 'typeorm';
import { demoBoards } from '../demo/boards';
import { demoJobs } from '../demo/jobs';
import { demoShop } from '../demo/shop';
import { ShopEntity } from './entities';
import { addBoards } from './boards';
import { insertJob } from './jobs';
import { createShop } from './kit';

/** Puts the demo shop into a database that has none. Its jobs go through the same doors as everybody's. */
export async function seedDemo(source: DataSource): Promise<void> {
  await source.transaction(async (manager) => {
    if ((await manager.count(ShopEntity)) > 0) return;
    const shopId = await createShop(manager, demoShop);
    const start = Date.now() - demoJobs.length * 60_000;
    for (const [i, build] of demoJobs.entries())
      await insertJob(manager, shopId, build, new Date(start + i * 60_000));
    await addBoards(manager, demoBoards);
  });
}
