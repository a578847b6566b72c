import * as yup from 'yup';
import { MARK_KINDS, MOST_MARKS, MOST_NOTE_WORDS } from '../core/notes';
import { flag, list, oneOf } from './fields';
import { amount, exact, id, text, version } from './lengths';

const share = () => amount().min(0).max(1);
const mark = exact({ kind: oneOf(...MARK_KINDS), x1: share(), y1: share(), x2: share(), y2: share() });

/** An ISO moment. */
const moment = () =>
  text(40)
    .required()
    .test(
      'moment',
      ({ path }) => `${path} must be a time, such as 2026-03-01T09:30:00Z`,
      (value) => value === undefined || !Number.isNaN(Date.parse(value)),
    );

const content = exact({
  job: id().optional(),
  board: id().optional(),
  step: id().optional(),
  piece: text(160).optional(),
  failure: id().optional(),
  words: yup
    .string()
    .max(MOST_NOTE_WORDS)
    .defined(({ path }) => `${path} must be text`),
  marks: list(mark, MOST_MARKS),
  at: moment(),
  who: text(80).optional(),
  removed: flag(),
})
  .test(
    'one thing',
    ({ path }) => `${path} must belong to a job or to a board, and to one of them only`,
    (value) => value === undefined || (value.job === undefined) !== (value.board === undefined),
  )
  .test(
    'of a job',
    ({ path }) => `${path} can be at a step, of a piece or of a failure only where it belongs to a job`,
    (value) =>
      value?.board === undefined ||
      (value.step === undefined && value.piece === undefined && value.failure === undefined),
  );

/** A note, new or changed, with the version it was made from; 0 where it is new. */
export const noteBody = exact({ version: version().min(0), note: content.required() });
