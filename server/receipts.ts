import type { Request } from 'express';
import type { EntityManager } from 'typeorm';
import { ReceiptEntity, type ReceiptRow } from './entities';
import type { Caller } from './caller';
import { problem } from './problems';

/** The header that names a write, so that it can be repeated after a lost answer without being carried out twice. */
const HEADER = 'Idempotency-Key';
/** Receipts are kept this long: a browser that was away longer finds its change in the history by content, days. */
const KEPT_DAYS = 60;

/** The id a caller gave its write, or undefined; one that is no id is refused. */
export function writeOf(request: Request): string | undefined {
  const key = request.get(HEADER);
  if (key === undefined) return undefined;
  if (!/^[A-Za-z0-9_-]{8,64}$/.test(key))
    throw problem(
      400,
      'Not understood',
      `${HEADER} must be 8 to 64 letters, digits, dashes or underscores; this has ${key.length}.`,
    );
  return key;
}

/** The receipt of a write, where it was carried out before. */
export const receiptOf = async (
  manager: EntityManager,
  { shop }: Caller,
  write: string | undefined,
): Promise<ReceiptRow | null> =>
  write === undefined ? null : manager.findOneBy(ReceiptEntity, { write, shopId: shop });

/** The write that made a version of something, where its caller named it. */
export async function writerOf(
  manager: EntityManager,
  subject: string,
  version: number,
): Promise<string | undefined> {
  return (await manager.findOneBy(ReceiptEntity, { subject, version }))?.write;
}

/** Notes that a write was carried out; in the same transaction, so that both stand or neither does. */
export async function giveReceipt(
  manager: EntityManager,
  { shop }: Caller,
  write: string | undefined,
  receipt: { subject: string; version: number; answer?: unknown },
): Promise<void> {
  if (write === undefined) return;
  await manager.query(
    'INSERT INTO receipt (write_id, shop_id, subject, version, answer) VALUES (?, ?, ?, ?, ?)',
    [
      write,
      shop,
      receipt.subject,
      receipt.version,
      receipt.answer === undefined ? null : JSON.stringify(receipt.answer),
    ],
  );
}

/** Forgets receipts of long ago. */
export const thinReceipts = (manager: EntityManager): Promise<unknown> =>
  manager.query('DELETE FROM receipt WHERE created_at < NOW() - INTERVAL ? DAY LIMIT 5000', [KEPT_DAYS]);
