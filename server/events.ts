import type { Express, Request, Response } from 'express';
import type { DataSource } from 'typeorm';
import { EVENTS_PATH, type ToldKind } from '../contract/api';
import { callerOf } from './caller';
import type { Connection } from './database';
import { problem } from './problems';

/*
 * What happens in a shop, told to its open pages as server-sent events. The events are rows: several servers before one
 * database tell all pages the same, and no server holds anything that another one would miss.
 */

/** Pause between looks at the table while somebody listens, ms. */
const LOOK_MS = 400;
/** So often a line that says nothing keeps the way open, ms. */
const STILL_HERE_MS = 15_000;
const MOST_LISTENERS = 200;
/** Numbers are given out before they are committed: so many back are looked at again. */
const LATE = 200;
const MOST_AT_ONCE = 500;
/** Every so many events the old ones are swept out. */
const SWEEP_EVERY = 100;

/** Something to tell. */
export interface Event {
  shop: string;
  kind: ToldKind;
  subject?: string;
  data?: unknown;
}

/** Writes down that something happened, for all servers to tell their pages. */
export async function tell(source: DataSource, { shop, kind, subject, data }: Event): Promise<void> {
  const { insertId } = await source.query(
    'INSERT INTO event (shop_id, kind, subject, data) VALUES (?, ?, ?, ?)',
    [shop, kind, subject ?? null, data === undefined ? null : JSON.stringify(data)],
  );
  if (Number(insertId) % SWEEP_EVERY === 0)
    await source.query('DELETE FROM event WHERE created_at < NOW(3) - INTERVAL 1 HOUR LIMIT 2000');
}

interface Listener {
  shop: string;
  response: Response;
}
interface Row {
  id: string;
  shop: string;
  kind: string;
  subject: string | null;
  data: string | null;
}

const line = (kind: string, subject: string | null, data: string | null = null) =>
  `data: ${JSON.stringify({ kind, ...(subject === null ? {} : { subject }), ...(data === null ? {} : { data: JSON.parse(data) }) })}\n\n`;

/** Serves the stream of events; gives the way to end all of it, as when the server stops. */
export function streamEvents(app: Express, connection: Connection): () => void {
  const listeners = new Set<Listener>();
  /** What was told of the last numbers, so that one that came late is told once. */
  const told = new Set<string>();
  let last: bigint | undefined;
  let timer: NodeJS.Timeout | undefined;
  const look = async () => {
    const source = await connection.get();
    if (last === undefined) {
      const [{ most }]: { most: string | null }[] = await source.query('SELECT MAX(id) AS most FROM event');
      last = BigInt(most ?? 0);
      // What was there before the first page listened is not news.
      const before: { id: string }[] = await source.query('SELECT id FROM event WHERE id > ?', [
        String(last - BigInt(LATE)),
      ]);
      for (const { id } of before) told.add(String(id));
      return;
    }
    const rows: Row[] = await source.query(
      `SELECT id, shop_id AS shop, kind, subject, data FROM event WHERE id > ? ORDER BY id LIMIT ${MOST_AT_ONCE}`,
      [String(last - BigInt(LATE))],
    );
    for (const { id, shop, kind, subject, data } of rows) {
      const key = String(id);
      if (told.has(key)) continue;
      told.add(key);
      if (BigInt(key) > last) last = BigInt(key);
      for (const listener of listeners)
        if (listener.shop === shop) listener.response.write(line(kind, subject, data));
    }
    for (const key of told) if (BigInt(key) < last - BigInt(2 * LATE)) told.delete(key);
  };
  const goOn = () => {
    timer = setTimeout(() => {
      // A database that is away is looked at again; whoever comes back is told that something may have been missed.
      look()
        .catch(() => undefined)
        .finally(() => (listeners.size > 0 ? goOn() : rest()));
    }, LOOK_MS);
  };
  const rest = () => {
    clearTimeout(timer);
    timer = undefined;
    last = undefined;
    told.clear();
  };
  app.get(EVENTS_PATH, async (request: Request, response: Response) => {
    if (listeners.size >= MOST_LISTENERS)
      throw problem(503, 'Too many pages', `${listeners.size} pages listen to this server already.`);
    const source = await connection.get();
    const { shop } = await callerOf(request, source);
    if (timer === undefined) {
      await look();
      goOn();
    }
    response.set({
      'Content-Type': 'text/event-stream',
      // Nothing between here and the page holds it back or packs it.
      'Cache-Control': 'no-cache, no-transform',
      'X-Accel-Buffering': 'no',
    });
    response.flushHeaders();
    // Whatever happened before this page listened: it looks once.
    response.write(`retry: 3000\n${line('again', null)}`);
    const listener = { shop, response };
    listeners.add(listener);
    const still = setInterval(() => response.write(':\n\n'), STILL_HERE_MS);
    response.on('close', () => {
      clearInterval(still);
      listeners.delete(listener);
    });
  });
  return () => {
    for (const { response } of listeners) response.end();
  };
}
