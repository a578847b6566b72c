import * as yup from 'yup';
import { buildSchema } from './build';
import { reserveBody } from './board';
import { exact, id, version } from './lengths';

/** A new job. */
export const newJobBody = exact({ build: buildSchema });

/** A changed job, with the version it was made from. */
export const saveJobBody = exact({ build: buildSchema, version: version() });

/** The most jobs that are broken down together with another one. */
export const MOST_COMPANIONS = 3;

/** What one breakdown writes: the boards it takes, and the jobs whose strips come out of the same boards. */
export const reserveBoardsBody = exact({
  ...reserveBody,
  companions: yup
    .array(exact({ id: id(), version: version(), build: buildSchema }).required())
    .max(MOST_COMPANIONS)
    .optional(),
});

/** Whether a kept version stays, however old it grows. */
export const markBody = exact({ marked: yup.boolean().required() });
