import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import type { DataSource, EntityManager } from 'typeorm';
import type * as yup from 'yup';
import { checkWith } from '../contract/check';
import { oneOf } from '../contract/fields';
import { adhesive, clampSet } from '../contract/gluing';
import { exact, notNegative } from '../contract/lengths';
import { readShop } from '../contract/read';
import { machine, saw, type KitReply } from '../contract/shop';
import { defaultShop } from '../core/kit';
import type { AllowanceName, ShopSnapshot } from '../core/kit';
import type { Length } from '../core/units';
import {
  AdhesiveEntity,
  AllowanceEntity,
  ClampSetEntity,
  MachineEntity,
  SawEntity,
  ShopEntity,
  type KitRow,
  type ShopRow,
} from './entities';
import type { Caller } from './caller';
import { transact } from './database';
import { problem } from './problems';
import { giveReceipt, receiptOf, writerOf } from './receipts';

const ordered = { order: { position: 'ASC' as const } };

/** The kit as one snapshot, as builds carry it. */
export async function readKit(manager: EntityManager, caller: Caller): Promise<KitReply> {
  const shop = await manager.findOneByOrFail(ShopEntity, { id: caller.shop });
  const where = { where: { shopId: shop.id }, ...ordered };
  const [saws, machines, clamps, adhesives, allowances] = await Promise.all([
    manager.find(SawEntity, where),
    manager.find(MachineEntity, where),
    manager.find(ClampSetEntity, where),
    manager.find(AdhesiveEntity, where),
    manager.find(AllowanceEntity, where),
  ]);
  const settings = (shop.settings ?? {}) as Partial<ShopRow['settings']>;
  const { entered, ...own } = settings;
  const damaged: string[] = [];
  /** Rows that keep their contract; the others are named, and stay in the database. */
  const whole = <T>(what: string, schema: yup.ISchema<unknown>, rows: readonly KitRow<T>[]): T[] =>
    rows.flatMap(({ code, details }) => {
      if (details !== null && checkWith(schema, details).ok) return [details];
      damaged.push(`${what} “${code}”`);
      return [];
    });
  if (!shop.settings) damaged.push('its settings');
  const amounts = whole('allowance', allowance, allowances);
  const assembled = {
    name: shop.name,
    ...own,
    ...(entered?.includes('clamps') ? { clamps: whole('clamps', clampSet, clamps) } : {}),
    ...(entered?.includes('adhesives') ? { adhesives: whole('glue', adhesive, adhesives) } : {}),
    saws: whole('saw', saw, saws),
    machines: whole('machine', machine, machines),
    allowances: Object.fromEntries(amounts.map(({ name, amount }) => [name, amount])),
  };
  const read = readShop(assembled);
  if (!read.ok)
    throw problem(
      500,
      'A damaged kit',
      `The shop’s settings were damaged in the database: ${read.problems.map(({ path, reason }) => `${path}: ${reason}`).join('; ')}.`,
    );
  return { id: shop.id, version: shop.version, shop: read.build, ...(damaged.length > 0 ? { damaged } : {}) };
}

const allowance = exact({ name: oneOf(...Object.keys(defaultShop('').allowances)), amount: notNegative() });

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

/** Whoever asks, as the owner of a shop. */
export const shopCaller = (shop: string, member: string): Caller => ({ shop, member, role: 'owner' });

/** Makes the shop; gives its id. */
export async function createShop(manager: EntityManager, shop: ShopSnapshot, demo = false): Promise<string> {
  const id = randomUUID();
  await manager.insert(ShopEntity, { id, name: shop.name, version: 1, demo, settings: settingsOf(shop) });
  await writeKitRows(manager, id, shop);
  return id;
}

/**
 * Changes the kit, if nobody else did since it was read. A write that was carried out before is answered with the
 * version it made, and so is one that says what stands already; otherwise 409 with the kit that stands.
 */
export async function writeKit(
  source: DataSource,
  caller: Caller,
  { version, shop, write }: { version: number; shop: ShopSnapshot; write?: string | undefined },
): Promise<KitReply> {
  const stored = await transact(source, async (manager) => {
    const id = caller.shop;
    const before = await receiptOf(manager, caller, write);
    const changed = before
      ? { affected: 0 }
      : await manager.update(
          ShopEntity,
          { id, version },
          { name: shop.name, version: version + 1, settings: settingsOf(shop) },
        );
    if (changed.affected === 1) {
      await writeKitRows(manager, id, shop);
      await giveReceipt(manager, caller, write, { subject: id, version: version + 1 });
    }
    const now = await readKit(manager, caller);
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
