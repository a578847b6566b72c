import * as yup from 'yup';
import {
  BAND_LIMITS,
  MOST_LEARNED,
  MOST_MINOR,
  MOST_RATES,
  MOST_RULE_VALUE,
  MOST_RULES,
  PACE_LIMITS,
} from '../core/kit';
import { CHECK_KINDS } from '../core/document';
import { flag, oneOf, optionalList } from './fields';
import { exact, id, maybeOneOf, notNegative, oneSpread, text } from './lengths';

/* What a shop's log taught it, as it stands in the kit. */

/** A kind of loss with whose it is, as `kerf:table-full`. */
const lossId = () =>
  text(160)
    .matches(/^[a-zA-Z]+:[\w.:-]+$/, ({ path }) => `${path} must name a loss, such as kerf:table-full`)
    .required();
const amountOf = () => yup.number().min(-100_000).max(100_000).required();

/** What was taken over from the log, with what stood there before. */
export const learned = () =>
  yup
    .array(
      exact({
        id: lossId(),
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
    .array(exact({ id: lossId(), at: text(40).required(), from: amountOf() }).required())
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

/** Rules of the shop's own. */
export const rules = () =>
  yup
    .array(
      exact({
        id: id(),
        words: text(200).required(),
        step: text(40).required(),
        side: oneOf('below', 'above'),
        dimension: maybeOneOf('length', 'width', 'thickness'),
        size: notNegative().default(undefined).optional(),
        check: maybeOneOf(...CHECK_KINDS),
        value: yup.number().min(0).max(MOST_RULE_VALUE).optional(),
      })
        .test(
          'of one thing',
          ({ path }) => `${path} must say a dimension with a size, or a check with a value`,
          (rule) => {
            const [size, check] = [
              [rule?.dimension, rule?.size],
              [rule?.check, rule?.value],
            ].map((pair) => pair.filter((each) => each !== undefined).length);
            return (size === 2 && check === 0) || (size === 0 && check === 2);
          },
        )
        .required(),
    )
    .max(MOST_RULES)
    .optional();

const minor = () => yup.number().integer().min(0).max(MOST_MINOR).required();
const pct = (most: number) => yup.number().min(0).max(most).optional();

/** What things cost the shop. */
export const rates = () =>
  exact({
    handMinor: minor().optional(),
    people: optionalList(exact({ person: id(), minor: minor() }), MOST_RATES),
    machines: optionalList(exact({ tool: id(), minor: minor() }), MOST_RATES),
    edges: optionalList(
      exact({ tool: id(), minor: minor(), metres: yup.number().moreThan(0).max(1_000_000).required() }),
      MOST_RATES,
    ),
    glue: optionalList(exact({ adhesive: id(), minor: minor() }), MOST_RATES),
    wood: optionalList(exact({ species: id(), minor: minor() }), MOST_RATES),
    markupPct: pct(1000),
    taxPct: pct(100),
    breaks: optionalList(
      exact({
        from: yup.number().integer().min(2).max(100_000).required(),
        pct: yup.number().min(0).max(100).required(),
      }),
      20,
    ),
  })
    .default(undefined)
    .optional();

/** Whether the band stays as it is. */
export const bandHeld = () => flag();
/** How much wider sizes scatter. */
export const band = () => yup.number().min(BAND_LIMITS.least).max(BAND_LIMITS.most).optional();
