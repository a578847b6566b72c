import * as yup from 'yup';
import { buildSchema } from './build';
import { exact, version } from './lengths';

/** A new job. */
export const newJobBody = exact({ build: buildSchema });

/** A changed job, with the version it was made from. */
export const saveJobBody = exact({ build: buildSchema, version: version() });

/** Whether a kept version stays, however old it grows. */
export const markBody = exact({ marked: yup.boolean().required() });
