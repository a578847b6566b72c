import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import type { DataSource, EntityManager } from 'typeorm';
import type { KitReply } from '../contract/shop';
import type { AllowanceName, Allowances, ShopSnapshot } from '../core/kit';
import type { Length } from '../core/units';
import {
  AdhesiveEntity,
  AllowanceEntity,
  ClampSetEntity,
  MachineEntity,
  SawEntity,
  ShopEntity,
  type ShopRow,
} from './entities';
import { transact } from './database';
import { problem } from './problems';
import { giveReceipt, receiptOf, writerOf } from './receipts';

/** Whether text is an id as the database makes them. */
export const isUuid = (id: string): boolean => /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i.test(id);

/** The id of the shop of this installation. */
export async function shopId(manager: EntityManager): Promise<string> {
  const [shop]: { id: string }[] = await manager.query('SELECT id FROM shop ORDER BY created_at LIMIT 1');
  if (!shop) throw noShop();
  return shop.id;
}
const noShop = () => problem(503, 'No shop yet', 'The shop is still being set up. Try again in a moment.');

/** The shop of this installation; there is one until sign-in comes. */
export async function currentShop(manager: EntityManager): Promise<ShopRow> {
  const [shop] = await manager.find(ShopEntity, { order: { createdAt: 'ASC' }, take: 1 });
  if (!shop) throw noShop();
  return shop;
}

const ordered = { order: { position: 'ASC' as const } };

/** The kit as one snapshot, as builds carry it. */
export async function readKit(manager: EntityManager): Promise<KitReply & { shopId: string }> {
  const shop = await currentShop(manager);
  const where = { where: { shopId: shop.id }, ...ordered };
  const [saws, machines, clamps, adhesives, allowances] = await Promise.all([
    manager.find(SawEntity, where),
    manager.find(MachineEntity, where),
    manager.find(ClampSetEntity, where),
    manager.find(AdhesiveEntity, where),
    manager.find(AllowanceEntity, where),
  ]);
  const { entered, ...settings } = shop.settings;
  return {
    shopId: shop.id,
    version: shop.version,
    shop: {
      name: shop.name,
      ...settings,
      ...(entered?.includes('clamps') ? { clamps: clamps.map((row) => row.details) } : {}),
      ...(entered?.includes('adhesives') ? { adhesives: adhesives.map((row) => row.details) } : {}),
      saws: saws.map((row) => row.details),
      machines: machines.map((row) => row.details),
      allowances: Object.fromEntries(
        allowances.map(({ details }) => [details.name, details.amount]),
      ) as unknown as Allowances,
    },
  };
}

async function writeKitRows(manager: EntityManager, shopId: string, shop: ShopSnapshot): Promise<void> {
  for (const entity of [SawEntity, MachineEntity, ClampSetEntity, AdhesiveEntity, AllowanceEntity])
    await manager.delete(entity, { shopId });
  const row = <T>(code: string, position: number, details: T) => ({
    id: randomUUID(),
    shopId,
    code,
    position,
    details,
  });
  await manager.insert(
    SawEntity,
    shop.saws.map((saw, i) => row(saw.id, i, saw)),
  );
  await manager.insert(
    MachineEntity,
    shop.machines.map((machine, i) => row(machine.id, i, machine)),
  );
  const { clamps = [], adhesives = [] } = shop;
  await manager.insert(
    ClampSetEntity,
    clamps.map((set, i) => row(set.id, i, set)),
  );
  await manager.insert(
    AdhesiveEntity,
    adhesives.map((bottle, i) => row(bottle.id, i, bottle)),
  );
  const amounts = Object.entries(shop.allowances) as [AllowanceName, Length][];
  await manager.insert(
    AllowanceEntity,
    amounts.map(([name, amount], i) => row(name, i, { name, amount })),
  );
}

const settingsOf = ({
  name: _name,
  saws: _saws,
  machines: _machines,
  allowances: _allowances,
  clamps,
  adhesives,
  ...settings
}: ShopSnapshot): ShopRow['settings'] => ({
  ...settings,
  entered: [...(clamps ? ['clamps' as const] : []), ...(adhesives ? ['adhesives' as const] : [])],
});

/** Makes the shop; gives its id. */
export async function createShop(manager: EntityManager, shop: ShopSnapshot): Promise<string> {
  const id = randomUUID();
  await manager.insert(ShopEntity, { id, name: shop.name, version: 1, settings: settingsOf(shop) });
  await writeKitRows(manager, id, shop);
  return id;
}

/**
 * Changes the kit, if nobody else did since it was read. A write that was carried out before is answered with the
 * version it made, and so is one that says what stands already; otherwise 409 with the kit that stands.
 */
export async function writeKit(
  source: DataSource,
  version: number,
  shop: ShopSnapshot,
  write?: string,
): Promise<KitReply> {
  const stored = await transact(source, async (manager) => {
    const { id } = await currentShop(manager);
    const before = await receiptOf(manager, write);
    const changed = before
      ? { affected: 0 }
      : await manager.update(
          ShopEntity,
          { id, version },
          { name: shop.name, version: version + 1, settings: settingsOf(shop) },
        );
    if (changed.affected === 1) {
      await writeKitRows(manager, id, shop);
      await giveReceipt(manager, write, { shopId: id, subject: id, version: version + 1 });
    }
    const { shopId: _, ...now } = await readKit(manager);
    if (changed.affected === 1) return now;
    if (before?.subject === id) return { ...now, version: before.version };
    if (isDeepStrictEqual(JSON.parse(JSON.stringify(now.shop)), shop)) return now;
    const maker = await writerOf(manager, id, now.version);
    return { current: now, ...(maker ? { write: maker } : {}) };
  });
  if ('current' in stored)
    throw problem(
      409,
      'The kit was changed elsewhere',
      `The kit is at version ${stored.current.version}; your change was made from version ${version}. It is kept in this browser until you choose.`,
      stored,
    );
  return stored;
}
