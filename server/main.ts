import { createApp } from './app';
import { connect } from './database';
import { seedDemo } from './seed';

/*
 * The server process. Settings come from the environment; loopback only unless JUNTA_HOST says otherwise. Stays up
 * when the database is away, and answers 503 until it is back.
 */
const env = process.env;
const port = Number(env.JUNTA_PORT ?? 4180);
const host = env.JUNTA_HOST ?? '127.0.0.1';
const connection = connect(
  {
    host: env.JUNTA_DB_HOST ?? '127.0.0.1',
    port: Number(env.JUNTA_DB_PORT ?? 4181),
    user: 'junta',
    password: env.JUNTA_DB_PASSWORD ?? '',
    database: env.JUNTA_DB_NAME ?? 'junta',
  },
  seedDemo,
);
const app = createApp(connection, env.JUNTA_WEB);
const server = app.listen(port, host, (error) => {
  if (error) {
    console.error(`Junta cannot listen on ${host}:${port}: ${error.message}`);
    process.exit(1);
  }
  console.log(`Junta listens on http://${host}:${port}`);
});
connection.get().catch((error: Error) => console.error(`The database does not answer yet: ${error.message}`));

for (const signal of ['SIGTERM', 'SIGINT'] as const)
  process.on(signal, () => {
    server.close(() => void connection.close().finally(() => process.exit(0)));
    setTimeout(() => process.exit(0), 3000).unref();
  });
