import type { GlueView } from '../../../app/job';

/** The parts of a glue-up's card, each with the findings that belong to it. */
export const GLUE_VIEWS: readonly { id: GlueView; name: string; codes: readonly string[] }[] = [
  { id: 'layUp', name: 'Lay-up', codes: [] },
  {
    id: 'clamps',
    name: 'Clamps',
    codes: [
      'no-clamps',
      'clamps-too-short',
      'too-few-clamps',
      'clamps-dent',
      'thin-end-grain',
      'crowned-edge',
    ],
  },
  { id: 'glue', name: 'Glue', codes: ['no-adhesive', 'adhesive-unsuited', 'glue-short', 'climate-unknown'] },
  { id: 'aids', name: 'Aids', codes: ['aids-needed', 'aid-exposed', 'aids-find-no-place'] },
  { id: 'pace', name: 'Pace', codes: ['slower-than-glue', 'too-heavy'] },
  { id: 'after', name: 'After', codes: [] },
];
