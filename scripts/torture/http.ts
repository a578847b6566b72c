import { mutated, randomFrom } from '../../contract/mutate.fixture';
import { memoryOf, openVictim, send, type Answer } from './house';

/** What became of many bad requests and races. */
export interface HttpFared {
  requests: number;
  accepted: number;
  /** Answers of 500, or none. */
  broken: string[];
  slowestMs: number;
  peakMb: number;
  grownMb: number;
  /** Bodies of up to 4 MB made to hurt: the longest answer, ms. */
  hurtMs: number;
  versionRaces: { races: number; wrong: number };
  boardRaces: { races: number; wrong: number };
}

/** Bodies of at most 4 MB that once stopped the shop. */
const hurting = (build: object): [string, string][] => {
  const sent = (change: object) => JSON.stringify({ version: 1, build: { ...build, ...change } });
  return [
    ['1.3 million targets', sent({ targets: Array(1_300_000).fill(0) })],
    ['60,000 elements', sent({ targets: Array(60_000).fill({}) })],
    ['290,000 steps', sent({ steps: Array(290_000).fill({ kind: 'rip' }).slice(0, 140_000) })],
    ['a million levels', `{"build":${'['.repeat(1_900_000)}${']'.repeat(1_900_000)}}`],
    ['280,000 fields', sent(Object.fromEntries(Array.from({ length: 280_000 }, (_, i) => [`f${i}`, 0])))],
    ['a string of 3.9 MB', sent({ name: 'x'.repeat(3_900_000) })],
    ['escapes', sent({ name: '\\'.repeat(1_900_000) })],
    ['two million numbers', `[${'1,'.repeat(2_000_000)}1]`],
  ];
};

/** Sends mutated bodies to every door, bodies made to hurt, and races for one version and for one board. */
export async function tortureHttp(seed: number, requests: number, races: number): Promise<HttpFared> {
  const random = randomFrom(seed);
  const victim = await openVictim();
  const { url } = victim;
  const fared: HttpFared = {
    requests: 0,
    accepted: 0,
    broken: [],
    slowestMs: 0,
    peakMb: 0,
    grownMb: 0,
    hurtMs: 0,
    versionRaces: { races: 0, wrong: 0 },
    boardRaces: { races: 0, wrong: 0 },
  };
  const memory = () => {
    const mb = memoryOf(victim.serverPid());
    fared.peakMb = Math.max(fared.peakMb, mb);
    return mb;
  };
  const note = (what: string, answer: Answer) => {
    fared.requests += 1;
    fared.accepted += Number(answer.status >= 200 && answer.status < 300);
    fared.slowestMs = Math.max(fared.slowestMs, answer.ms);
    if (answer.status === 0 || answer.status >= 500)
      fared.broken.push(`${what}: ${answer.status} ${JSON.stringify(answer.body)?.slice(0, 200)}`);
    memory();
  };
  try {
    const jobs = (await send(`${url}/api/jobs`)).body as { id: string }[];
    const read = async (i: number) => (await send(`${url}/api/jobs/${jobs[i % jobs.length].id}`)).body;
    const boards = (await send(`${url}/api/boards`)).body;
    const kit = (await send(`${url}/api/kit`)).body;
    const builds = await Promise.all(jobs.map((_, i) => read(i)));
    const { id: boardId, version, history: _h, reserved: _r, ...board } = boards[0];
    const doors = [
      (i: number) => ['POST', '/api/jobs', { build: builds[i % builds.length].build }],
      (i: number) => {
        const { id, version: v, build } = builds[i % builds.length];
        return ['PUT', `/api/jobs/${id}`, { version: v, build }];
      },
      () => ['PUT', '/api/kit', kit],
      (i: number) => ['POST', '/api/boards', { boards: [{ ...board, label: `t${i}` }] }],
      () => ['PUT', `/api/boards/${boardId}`, { version, board }],
      () => [
        'PUT',
        `/api/jobs/${jobs[0].id}/boards`,
        { boards: boards.slice(0, 3).map((b: { id: string }) => b.id) },
      ],
      () => ['POST', '/api/boards/remove', { ids: ['nobody'], force: false }],
    ] as ((i: number) => [string, string, object])[];
    const TYPES = ['application/json', 'text/plain', 'application/json; charset=utf-16', ''];
    for (let i = 0; i < requests; i++) {
      const [method, path, body] = doors[i % doors.length](i);
      const type = random() < 0.05 ? TYPES[Math.floor(random() * TYPES.length)] : TYPES[0];
      let text = JSON.stringify(mutated(body, random));
      if (random() < 0.02) text = text.slice(0, Math.floor(random() * text.length));
      note(
        `${method} ${path} ${i}`,
        await send(url + path, method, text, type ? { 'Content-Type': type } : {}),
      );
    }
    const calm = memory();
    for (const [what, text] of hurting(builds[0].build)) {
      const answer = await send(`${url}/api/jobs`, 'POST', text);
      note(what, answer);
      fared.hurtMs = Math.max(fared.hurtMs, answer.ms);
      fared.grownMb = Math.max(fared.grownMb, memory() - calm);
      if (answer.status < 400) fared.broken.push(`${what} was accepted`);
    }
    await raceForVersions(url, races, fared);
    await raceForBoards(url, races, fared);
    return fared;
  } finally {
    await victim.close();
  }
}

async function raceForVersions(url: string, races: number, fared: HttpFared): Promise<void> {
  const [{ id }] = (await send(`${url}/api/jobs`)).body;
  for (let i = 0; i < races; i++) {
    const { version, build } = (await send(`${url}/api/jobs/${id}`)).body;
    const answers = await Promise.all(
      Array.from({ length: 6 }, (_, n) =>
        send(`${url}/api/jobs/${id}`, 'PUT', { version, build: { ...build, name: `race ${i} ${n}` } }),
      ),
    );
    const statuses = answers.map(({ status }) => status).toSorted();
    fared.versionRaces.races += 1;
    if (statuses.join() !== '200,409,409,409,409,409') fared.versionRaces.wrong += 1;
  }
}

async function raceForBoards(url: string, races: number, fared: HttpFared): Promise<void> {
  const jobs = (await send(`${url}/api/jobs`)).body as { id: string }[];
  const { ids } = (
    await send(`${url}/api/boards`, 'POST', {
      boards: [0, 1].map((n) => ({
        label: `raced ${n}`,
        species: 'ash_white',
        length: { mm: 1000 },
        width: { mm: 100 },
        thickness: { mm: 30 },
      })),
    })
  ).body;
  for (let i = 0; i < races; i++) {
    const answers = await Promise.all(
      jobs
        .slice(0, 2)
        .map(({ id }, n) =>
          send(`${url}/api/jobs/${id}/boards`, 'PUT', { boards: n ? ids : ids.toReversed() }),
        ),
    );
    const statuses = answers.map(({ status }) => status).toSorted();
    fared.boardRaces.races += 1;
    if (statuses.join() !== '200,409') fared.boardRaces.wrong += 1;
    for (const { id } of jobs.slice(0, 2)) await send(`${url}/api/jobs/${id}/boards`, 'PUT', { boards: [] });
  }
}
