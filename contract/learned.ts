import * as yup from 'yup';
import { BAND_LIMITS, MOST_LEARNED, PACE_LIMITS } from '../core/kit';
import { exact, id, oneSpread, text } from './lengths';

/* What a shop's log taught it, as it stands in the kit. */

const amountOf = () => yup.number().min(-100_000).max(100_000).required();

/** What was taken over from the log, with what stood there before. */
export const learned = () =>
  yup
    .array(
      exact({
        id: id(),
        at: text(40).required(),
        was: amountOf(),
        is: amountOf(),
        readings: yup.number().integer().min(0).max(10_000_000).required(),
        spreadWas: oneSpread().default(undefined).optional(),
      }).required(),
    )
    .max(MOST_LEARNED)
    .optional();

/** Blades that were changed, and scales that were moved. */
export const renewed = () =>
  yup
    .array(exact({ id: id(), at: text(40).required(), from: amountOf() }).required())
    .max(MOST_LEARNED)
    .optional();

/** How long steps of a kind take here. */
export const paces = () =>
  yup
    .array(
      exact({
        kind: text(40).required(),
        factor: yup.number().min(PACE_LIMITS.least).max(PACE_LIMITS.most).required(),
      }).required(),
    )
    .max(100)
    .optional();

/** How much wider sizes scatter. */
export const band = () => yup.number().min(BAND_LIMITS.least).max(BAND_LIMITS.most).optional();
