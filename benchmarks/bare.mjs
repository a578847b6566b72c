import express from 'express';

/*
 * Express and nothing else, to compare with: it answers with what it was given, as JSON, and reads bodies of the same
 * size as Junta's writes. Started by server.ts with a body to answer; tells its parent its port.
 */
process.once('message', ({ list, job, saved }) => {
  const app = express();
  app.get('/list', (_request, response) => void response.json(list));
  app.get('/job', (_request, response) => void response.json(job));
  app.put('/job', express.json({ limit: '4mb' }), (_request, response) => void response.json(saved));
  const server = app.listen(0, '127.0.0.1', () => process.send(server.address().port));
});
