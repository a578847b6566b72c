import 'reflect-metadata';
import { DataSource } from 'typeorm';
import { ENTITIES } from './entities';
import { MIGRATIONS } from './migrations';

/** Where the database answers. */
export interface DatabaseSettings {
  host: string;
  port: number;
  user: string;
  password: string;
  database: string;
}

/** A data source with Junta's tables, not yet connected. Several servers may stand before one database. */
export const dataSourceFor = ({ host, port, user, password, database }: DatabaseSettings): DataSource =>
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
    migrations: MIGRATIONS,
    synchronize: false,
    logging: false,
    extra: { enableKeepAlive: true },
  });

const LOST =
  /ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|PROTOCOL_CONNECTION_LOST|ER_SERVER_SHUTDOWN|closed state|Connection lost|not initialized|CannotExecuteNotConnected|CannotConnectAlreadyConnected|read ECONN/i;

/** Whether an error says that the database is away, and not that the question was wrong. */
export const isDatabaseAway = (error: unknown): boolean => {
  const e = error as { code?: string; message?: string; name?: string };
  return LOST.test(`${e?.code ?? ''} ${e?.name ?? ''} ${e?.message ?? ''}`);
};

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
      await source.query("SELECT GET_LOCK('junta-migrate', 30)");
      await source.runMigrations({ transaction: 'none' });
      await prepare(source);
    } catch (error) {
      await source.destroy();
      throw error;
    } finally {
      if (source.isInitialized) await source.query("SELECT RELEASE_LOCK('junta-migrate')");
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
