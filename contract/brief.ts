import * as yup from 'yup';
import { type MeasureValue, PATTERN_IDS } from '../core/document';
import { checkWith } from './check';
import { aim, cutter, list, oneOf, whole } from './fields';
import { exact, id, length, text } from './lengths';
import { ownAllowances } from './shop';

const measureLength = length();
const isMeasure = (value: unknown): boolean => {
  if (typeof value === 'string') return value.length <= 2000;
  if (typeof value === 'number') return Number.isFinite(value);
  return typeof value === 'boolean' || checkWith(measureLength, value).ok;
};

/** A pattern's measures: each a length, a number, a word or a yes or no, under its name. */
const measures = () =>
  yup
    .mixed<Record<string, MeasureValue>>()
    .optional()
    .test(
      'measures',
      ({ path }) =>
        `${path} must be at most 40 measures, each a length, a finite number, a yes or no, or at most 2,000 letters`,
      (value) =>
        value === undefined ||
        (typeof value === 'object' &&
          value !== null &&
          !Array.isArray(value) &&
          Object.keys(value).length <= 40 &&
          Object.values(value).every(isMeasure)),
    );

/** What a build is planned from. */
export const briefSchema = exact({
  pattern: oneOf(...PATTERN_IDS),
  length: aim(),
  width: aim(),
  thickness: aim(),
  woods: list(id(), 20),
  module: length(),
  saw: id(),
  flattenWith: id(),
  trimWith: cutter(),
  chequer: yup.boolean().required(),
  extraSlices: whole().min(0).max(100),
  sections: whole().min(0).max(50),
  quantity: yup.number().integer().min(1).max(100).optional(),
  asTheyAre: yup.boolean().optional(),
  stock: text(40).optional(),
  allowances: ownAllowances(),
  measures: measures(),
});
