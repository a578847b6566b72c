import * as yup from 'yup';
import { GAUGE_KIND_NAMES, GAUGE_UNIT_NAMES } from '../core/bench';
import { MOST_TAG, MOST_TAGS } from './bounds';
import { buildSchema } from './build';
import { reserveBody } from './board';
import { oneOf } from './fields';
import { exact, id, text, version } from './lengths';
import { shopSnapshot } from './shop';

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

/** Where a job lies: put away or on the bench, deleted or not, and by which words it is found. What is missing stays. */
export const placeBody = exact({
  putAway: yup.boolean().optional(),
  deleted: yup.boolean().optional(),
  tags: yup.array(text(MOST_TAG).required()).max(MOST_TAGS).optional(),
});

/** A shop of one's own, whole. */
export const newShopBody = exact({ shop: shopSnapshot() });

/** What a gauge read: one line of JSON. */
export const gaugeBody = exact({
  gauge: text(60).min(1).required(),
  kind: oneOf(...GAUGE_KIND_NAMES),
  value: yup.number().min(-1e6).max(1e6).required(),
  unit: oneOf(...GAUGE_UNIT_NAMES),
});

/** A wait that has rung and was heard. */
export const hearBody = exact({ job: id(), task: text(160).required() });

/** Whether a shop is removed or brought back. */
export const removeShopBody = exact({ removed: yup.boolean().required() });
