import express, { type Request, type RequestHandler } from 'express';
import { MOST_BYTES, tooMuch } from '../contract/bounds';
import type { Endpoint } from '../contract/endpoints';
import { megabytes, MOST_PHOTO_BYTES } from '../core/notes';
import { problem } from './problems';

/** Reads JSON bodies: too large, too deep or too much is refused before anything is built of it. */
const jsonBody = express.json({
  limit: MOST_BYTES,
  strict: true,
  verify: (_request, _response, bytes) => {
    const flood = tooMuch(bytes);
    if (flood) throw problem(413, 'Too much', `This body ${flood}. It was not read.`);
  },
});

const isEmpty = ({ headers }: Request): boolean =>
  (headers['content-length'] === undefined || headers['content-length'] === '0') &&
  headers['transfer-encoding'] === undefined;

const onlyJson: RequestHandler = (request, _response, next) =>
  next(
    isEmpty(request) || request.is('json')
      ? undefined
      : problem(
          415,
          'Not JSON',
          `A body is JSON, sent as application/json; this is “${(request.headers['content-type'] ?? 'of no type').slice(0, 60)}”.`,
        ),
  );

/** Reads a picture's bytes as they are. */
const imageBytes = express.raw({ type: () => true, limit: MOST_PHOTO_BYTES });
const imageBody: RequestHandler = (request, response, next) => {
  const most = megabytes(MOST_PHOTO_BYTES);
  if (Number(request.headers['content-length'] ?? 0) > MOST_PHOTO_BYTES)
    throw problem(413, 'Too large', `A photo has at most ${most}. This one is larger and was not read.`);
  // What it says of itself must be a picture; whether it is one, its own bytes tell later.
  if (!isEmpty(request) && !/^image\//.test(request.get('content-type') ?? ''))
    throw problem(
      415,
      'Not a photo',
      `A photo is sent as image/jpeg, image/png or image/webp; this is “${(request.headers['content-type'] ?? 'of no type').slice(0, 60)}”.`,
    );
  imageBytes(request, response, (error?: unknown) =>
    next(
      (error as { type?: string } | undefined)?.type === 'entity.too.large'
        ? problem(413, 'Too large', `A photo has at most ${most}. This one is larger and was not read.`)
        : error,
    ),
  );
};

/** What reads the body of an address. */
export const bodyOf = ({ takes }: Pick<Endpoint, 'takes'>): RequestHandler[] =>
  takes === 'image' ? [imageBody] : [onlyJson, jsonBody];
