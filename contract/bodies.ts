import { buildSchema } from './build';
import { amount, exact } from './lengths';

/** A new job. */
export const newJobBody = exact({ build: buildSchema });

/** A changed job, with the version it was made from. */
export const saveJobBody = exact({ build: buildSchema, version: amount().integer().min(1) });
