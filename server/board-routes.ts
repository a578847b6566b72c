import type { Express } from 'express';
import type * as yup from 'yup';
import {
  newBoardsBody,
  removeBoardsBody,
  reserveBody,
  saveBoardBody,
  type NewBoard,
} from '../contract/board';
import { bringBoards, cutBoards, listBoards, removeBoards, reserveBoards, saveBoard } from './boards';
import type { Connection } from './database';
import { writeOf } from './receipts';

/** The rack under /api/boards, and what a job does with its boards. */
export function routeBoards(
  app: Express,
  connection: Connection,
  read: <T>(schema: yup.ISchema<T>, body: unknown) => T,
): void {
  app.get(
    '/api/boards',
    async (_request, response) => void response.json(await listBoards((await connection.get()).manager)),
  );
  app.post('/api/boards', async (request, response) => {
    const { boards } = read(newBoardsBody, request.body);
    const ids = await bringBoards(await connection.get(), boards as NewBoard[], writeOf(request));
    response.status(201).json({ ids });
  });
  app.put('/api/boards/:id', async (request, response) => {
    const { version, board } = read(saveBoardBody, request.body);
    const { id } = request.params;
    const write = writeOf(request);
    response.json(await saveBoard(await connection.get(), { id, version, board: board as NewBoard, write }));
  });
  app.post('/api/boards/remove', async (request, response) => {
    const { ids, force } = read(removeBoardsBody, request.body);
    response.json(await removeBoards(await connection.get(), ids, force));
  });
  app.put('/api/jobs/:id/boards', async (request, response) => {
    const { boards } = read(reserveBody, request.body);
    response.json(await reserveBoards(await connection.get(), request.params.id, boards));
  });
  app.post(
    '/api/jobs/:id/cut',
    async (request, response) =>
      void response.json(await cutBoards(await connection.get(), request.params.id, writeOf(request))),
  );
}
