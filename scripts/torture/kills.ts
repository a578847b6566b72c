import { randomFrom } from '../../contract/mutate.fixture';
import { openVictim, pause, send, type Victim } from './house';

/** What became of edit streams while server and database were killed. */
export interface KillsFared {
  kills: number;
  acknowledged: number;
  lost: number;
  falseConflicts: number;
  /** Answers that should never be given. */
  broken: string[];
}

/** One thing that is edited, and what of it was acknowledged. */
interface Stream {
  name: string;
  url: string;
  body: (version: number, n: number) => object;
  version: number;
  /** The number of the last edit acknowledged, and the version it became. */
  acked: number;
  /** Reads the number of the last edit that is stored. */
  stored: () => Promise<number>;
}

/** Edits one thing without a rest until told to stop, as the outbox does: the same write until it is acknowledged. */
async function edit(stream: Stream, fared: KillsFared, stopped: () => boolean): Promise<void> {
  for (let n = stream.acked + 1; !stopped(); n++) {
    const key = `${stream.name}-${n}-torture`;
    for (;;) {
      const answer = await send(stream.url, 'PUT', stream.body(stream.version, n), {
        'Idempotency-Key': key,
      });
      if (answer.status === 200) {
        stream.version = answer.body.version;
        stream.acked = n;
        fared.acknowledged += 1;
        break;
      }
      if (answer.status === 409) {
        fared.falseConflicts += 1;
        stream.version = answer.body.current?.version ?? stream.version;
      } else if (![0, 503, 507].includes(answer.status))
        fared.broken.push(`${stream.name}: ${answer.status} ${JSON.stringify(answer.body).slice(0, 200)}`);
      if (stopped()) return;
      await pause(15);
    }
  }
}

async function streamsOf(victim: Victim): Promise<Stream[]> {
  const { url } = victim;
  const [summary] = (await send(`${url}/api/jobs`)).body;
  const job = (await send(`${url}/api/jobs/${summary.id}`)).body;
  const kit = (await send(`${url}/api/kit`)).body;
  const [{ id, version, history: _h, reserved: _r, ...board }] = (await send(`${url}/api/boards`)).body;
  const numberIn = (text: string | undefined) => Number(/\d+$/.exec(text ?? '')?.[0] ?? 0);
  return [
    {
      name: 'job',
      url: `${url}/api/jobs/${job.id}`,
      body: (v, n) => ({ version: v, build: { ...job.build, name: `edit ${n}` } }),
      version: job.version,
      acked: 0,
      stored: async () => numberIn((await send(`${url}/api/jobs/${job.id}`)).body.build?.name),
    },
    {
      name: 'kit',
      url: `${url}/api/kit`,
      body: (v, n) => ({ version: v, shop: { ...kit.shop, name: `edit ${n}` } }),
      version: kit.version,
      acked: 0,
      stored: async () => numberIn((await send(`${url}/api/kit`)).body.shop?.name),
    },
    {
      name: 'board',
      url: `${url}/api/boards/${id}`,
      body: (v, n) => ({ version: v, board: { ...board, log: `edit ${n}` } }),
      version,
      acked: 0,
      stored: async () =>
        numberIn((await send(`${url}/api/boards`)).body.find((b: { id: string }) => b.id === id)?.log),
    },
  ];
}

/** Kills server and database in turn, at random moments, while a job, the kit and a board are edited. */
export async function tortureKills(seed: number, kills: number): Promise<KillsFared> {
  const random = randomFrom(seed);
  const victim = await openVictim();
  const fared: KillsFared = { kills: 0, acknowledged: 0, lost: 0, falseConflicts: 0, broken: [] };
  try {
    const streams = await streamsOf(victim);
    let stop = false;
    const editing = streams.map((stream) => edit(stream, fared, () => stop));
    for (let i = 0; i < kills; i++) {
      await pause(60 + random() * 240);
      if (random() < 0.5) {
        await victim.killServer();
        await victim.startServer();
      } else {
        await victim.killDatabase();
        await pause(random() * 100);
        await victim.startDatabase();
      }
      fared.kills += 1;
      const before = fared.acknowledged;
      for (let wait = 0; wait < 400 && fared.acknowledged === before; wait++) await pause(25);
    }
    stop = true;
    await Promise.all(editing);
    // The last write of each may have been carried out without being acknowledged; nothing may be older.
    for (const stream of streams) if ((await stream.stored()) < stream.acked) fared.lost += 1;
    const [job] = streams;
    const revisions = (await send(`${job.url}/revisions`)).body as { name: string; aside: boolean }[];
    const names = new Set(revisions.filter(({ aside }) => !aside).map(({ name }) => name));
    // The list shows the newest 500.
    for (let n = Math.max(1, job.acked - 450); n <= job.acked; n++)
      if (!names.has(`edit ${n}`)) fared.lost += 1;
    return fared;
  } finally {
    await victim.close();
  }
}
