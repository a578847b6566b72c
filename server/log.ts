import { randomUUID } from 'node:crypto';
import type { RequestHandler } from 'express';
import { pino, type Logger } from 'pino';
import { pinoHttp } from 'pino-http';

/** Where a server writes what it did: lines of JSON, one a request, at `JUNTA_LOG` (`warn` if missing; `silent` for none). */
export const makeLog = (level = 'warn'): Logger => pino({ level, base: null });

/**
 * One line for every request with its id, address, answer and time; bodies and headers are never written. The id goes back
 * to the caller as `Junta-Request`, so that a line can be found from a complaint.
 */
export function requestLog(log: Logger): RequestHandler {
  return pinoHttp({
    logger: log,
    genReqId: (_request, response) => {
      const id = randomUUID();
      response.setHeader('Junta-Request', id);
      return id;
    },
    customLogLevel: (_request, { statusCode }, error) =>
      error || statusCode >= 500 ? 'error' : statusCode >= 400 ? 'warn' : 'info',
    serializers: {
      req: ({ id, method, url }: { id: string; method: string; url: string }) => ({ id, method, url }),
      res: ({ statusCode }: { statusCode: number }) => ({ status: statusCode }),
    },
  }) as RequestHandler;
}
