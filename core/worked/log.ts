import { type Loss, PRACTICE_DF, PRACTICE_READINGS } from '../log';
import { number, type Sum, type Unit, type Worked } from './sums';

/** What a shop loses, out of common practice and its readings; undefined where it was found together with other losses. */
export function workedLoss({ name, is, unit, now, practice, alone, nu }: Loss): Worked | undefined {
  const of: Unit = unit === 'mm' ? 'length' : 'share';
  if (is === 'spread') {
    const own =
      nu === undefined ? Number.NaN : (nu * now ** 2 - PRACTICE_DF * practice ** 2) / (nu - PRACTICE_DF);
    if (!(own > 0) || nu === undefined) return undefined;
    const square = (value: number, words: string): Sum => ({
      is: 'times',
      of: [number(value, of, words), number(value, of, words)],
    });
    return {
      title: name,
      sum: {
        is: 'root',
        of: {
          is: 'over',
          top: {
            is: 'add',
            of: [
              {
                is: 'times',
                of: [
                  number(PRACTICE_DF, 'count', 'weight of common practice'),
                  square(practice, 'common practice'),
                ],
              },
              {
                is: 'times',
                of: [
                  number(nu - PRACTICE_DF, 'count', 'weight of the readings'),
                  square(Math.sqrt(own), 'the readings alone'),
                ],
              },
            ],
          },
          under: number(nu, 'count', 'both weights'),
        },
      },
      unit: of,
      source:
        'Nine settings in ten lie within it. Common practice counts as ten degrees of freedom; readings that can hardly be true count for nothing. Conjugate variances (Gelman et al., Bayesian Data Analysis, 2.6).',
    };
  }
  // A factor is learned in its logarithm: shown is what that comes to for the logarithms.
  const log = (value: number) => (unit === 'times' ? Math.log(value) : value);
  if (alone === undefined) return undefined;
  const share = (log(now) - log(practice)) / (log(alone) - log(practice));
  if (!(share > 0 && share < 1)) return undefined;
  const weight = (PRACTICE_READINGS * share) / (1 - share);
  return {
    title: unit === 'times' ? `${name}: natural logarithm of the factor` : name,
    sum: {
      is: 'over',
      top: {
        is: 'add',
        of: [
          {
            is: 'times',
            of: [
              number(PRACTICE_READINGS, 'count', 'common practice counts as six readings'),
              number(log(practice), of, 'common practice, or what was entered first'),
            ],
          },
          {
            is: 'times',
            of: [
              number(
                weight,
                'count',
                'weight of the readings, by how finely they were read and how old they are',
              ),
              number(log(alone), of, 'the readings alone'),
            ],
          },
        ],
      },
      under: number(PRACTICE_READINGS + weight, 'count', 'both weights'),
    },
    unit: of,
    source:
      'Conjugate normal means (Gelman et al., Bayesian Data Analysis, 2.5). A reading more than 3.5 times as far off as it scatters counts for less than half; half of a reading is left after a year.',
  };
}
