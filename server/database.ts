import 'reflect-metadata';
import { DataSource, type EntityManager } from 'typeorm';
import { ENTITIES } from './entities';
import { MIGRATIONS } from './migrations';
import { problem } from './problems';

/** Where the database answers. */
export interface DatabaseSettings {
  host: string;
  port: number;
  user: string;
  password: string;
  database: string;
}

/**
 * A data source with Junta's tables, not yet connected. Several servers may stand before one database. `migrations`
 * is for tests of an upgrade: the migrations of an earlier release.
 */
export const dataSourceFor = (
  { host, port, user, password, database }: DatabaseSettings,
  migrations: typeof MIGRATIONS = MIGRATIONS,
): DataSource =>
  new DataSource({
    type: 'mariadb',
    host,
    port,
    username: user,
    password,
    database,
    charset: 'utf8mb4',
    timezone: 'Z',
    connectTimeout: 4000,
    poolSize: 8,
    entities: ENTITIES,
    migrations,
    synchronize: false,
    logging: false,
    extra: { enableKeepAlive: true },
  });

const codeOf = (error: unknown): string => (error as { code?: string }).code ?? '';

const DEADLOCKS = ['ER_LOCK_DEADLOCK', 'ER_LOCK_WAIT_TIMEOUT', 'ER_CHECKREAD'];
const MOST_TRIES = 8;

/**
 * Carries out work on the database; where it and another one stand in each other's way, the one that the database sends
 * home is carried out again, up to eight times.
 */
export async function again<T>(work: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++)
    try {
      return await work();
    } catch (error) {
      if (tries === MOST_TRIES || !DEADLOCKS.includes(codeOf(error))) throw error;
      await new Promise((done) => setTimeout(done, 5 * tries * (1 + Math.random())));
    }
}

/** Carries out work as one transaction that sees what others committed meanwhile; again where it must. */
export const transact = <T>(source: DataSource, work: (manager: EntityManager) => Promise<T>): Promise<T> =>
  again(() => source.transaction('READ COMMITTED', work));

const MIGRATION_LOCK_S = 60;

/** Refuses a database that a newer Junta has changed: what its tables mean now is not known here. */
async function refuseNewer(source: DataSource): Promise<void> {
  const [{ there }] = await source.query(
    "SELECT COUNT(*) AS there FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name = 'migrations'",
  );
  if (Number(there) === 0) return;
  const known = new Set(MIGRATIONS.map(({ name }) => name));
  const made: { name: string }[] = await source.query('SELECT name FROM migrations ORDER BY id');
  const unknown = made.filter(({ name }) => !known.has(name));
  if (unknown.length > 0)
    throw problem(
      503,
      'Made by a newer Junta',
      `This database was changed by a newer Junta: ${unknown.length} of its ${made.length} migrations, ${unknown[0].name} the first, are not known to this one, which knows ${MIGRATIONS.length}, up to ${MIGRATIONS[MIGRATIONS.length - 1].name}. Nothing was changed. Start the newer Junta.`,
    );
}

/** Brings the tables up to date and prepares them, one server at a time. */
async function prepareTables(
  source: DataSource,
  prepare: (source: DataSource) => Promise<void>,
): Promise<void> {
  // The lock belongs to one connection of the pool: the same must take it and give it back.
  const runner = source.createQueryRunner();
  try {
    const [{ got }] = await runner.query(`SELECT GET_LOCK('junta-migrate', ${MIGRATION_LOCK_S}) AS got`);
    if (Number(got) !== 1)
      throw problem(
        503,
        'Another server is at it',
        `Another server has been changing the tables for more than ${MIGRATION_LOCK_S} s. This one waits for it.`,
      );
    await refuseNewer(source);
    await source.runMigrations({ transaction: 'none' });
    await prepare(source);
    await runner.query("SELECT RELEASE_LOCK('junta-migrate')");
  } finally {
    await runner.release();
  }
}

/** The connection of one server: made when first needed, made again after the database was away. */
export interface Connection {
  get: () => Promise<DataSource>;
  close: () => Promise<void>;
}

/** Opens lazily; migrates and prepares once per server, under a lock so that two servers do not race. */
export function connect(
  settings: DatabaseSettings,
  prepare: (source: DataSource) => Promise<void>,
): Connection {
  let ready: Promise<DataSource> | undefined;
  const open = async (): Promise<DataSource> => {
    const source = dataSourceFor(settings);
    await source.initialize();
    try {
      await prepareTables(source, prepare);
    } catch (error) {
      await source.destroy();
      throw error;
    }
    return source;
  };
  return {
    get: () => {
      ready ??= open().catch((error) => {
        ready = undefined;
        throw error;
      });
      return ready;
    },
    close: async () => {
      const source = await ready?.catch(() => undefined);
      if (source?.isInitialized) await source.destroy();
    },
  };
}
