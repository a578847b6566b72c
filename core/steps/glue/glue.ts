import type { DimensionName, LaidPart, PartRule } from '../../document';
import { AID_KINDS } from '../../kit';
import { counted } from '../../units';
import type { ChoiceField, GroupField } from '../field';
import type { StepRoom } from '../room';
import { runGlue } from './run';
import type { GlueStep } from './step';

const everyNth: Pick<GroupField<PartRule>['fields'], 'every' | 'first' | 'except' | 'rowOf'> = {
  every: { is: 'number', whole: true, least: 1, most: 1000 },
  first: { is: 'number', whole: true, least: 1, most: 2000 },
  except: { is: 'list', most: 2000, of: { is: 'number', whole: true, least: 1 } },
  rowOf: { is: 'number', whole: true, least: 1, most: 2000, optional: true },
};
const dimension: ChoiceField<DimensionName> = {
  is: 'choice',
  options: [
    { value: 'length', label: 'Length' },
    { value: 'width', label: 'Width' },
    { value: 'thickness', label: 'Thickness' },
  ],
};
const part: GroupField<LaidPart>['fields'] = {
  piece: { is: 'id', of: 'piece' },
  endForEnd: { is: 'flag', optional: true },
  rollOver: { is: 'flag', optional: true },
  quarter: { is: 'flag', optional: true },
  sacrificial: { is: 'flag', optional: true },
  locked: { is: 'flag', optional: true },
  place: {
    is: 'group',
    optional: true,
    fields: {
      offset: { is: 'length', optional: true },
      angleDegrees: { is: 'number', least: -360, most: 360, optional: true },
      spacer: { is: 'length', optional: true },
      about: { ...dimension, optional: true },
      x: { is: 'length', optional: true },
      y: { is: 'length', optional: true },
      z: { is: 'length', optional: true },
    },
  },
};

/** The room of gluing up. Its card is its own: what it lays is set on the bench. */
export const glue: StepRoom<GlueStep> = {
  kind: 'glue',
  name: 'Glue-up',
  group: 'Glue',
  says: 'Lays parts side by side, end to end or on one another, and glues them.',
  subtitle: ({ along }, { parts }) =>
    `${parts === undefined ? '–' : counted(parts, 'part')} along the ${along}`,
  fields: {
    along: dimension,
    parts: { is: 'list', most: 2000, of: { is: 'group', fields: part }, optional: true },
    turns: {
      is: 'group',
      optional: true,
      fields: {
        turn: {
          is: 'choice',
          options: [
            { value: 'endForEnd', label: 'End for end' },
            { value: 'rollOver', label: 'Rolled over' },
            { value: 'quarter', label: 'A quarter turn' },
          ],
        },
        ...everyNth,
      },
    },
    shifts: {
      is: 'group',
      optional: true,
      fields: { by: { is: 'length' }, wrap: { is: 'length', optional: true }, ...everyNth },
    },
    rows: {
      is: 'group',
      optional: true,
      fields: {
        counts: { is: 'list', most: 500, of: { is: 'number', whole: true, least: 1, most: 2000 } },
        across: dimension,
      },
    },
    blanks: { is: 'number', whole: true, least: 1, most: 200, optional: true },
    split: {
      is: 'group',
      optional: true,
      fields: {
        joints: { is: 'list', most: 500, of: { is: 'number', whole: true, least: 1, most: 2000 } },
        machining: {
          is: 'group',
          optional: true,
          fields: {
            sections: { is: 'id', of: 'machine' },
            edges: { is: 'id', of: 'machine' },
            joined: { is: 'id', of: 'machine' },
          },
        },
        aids: {
          is: 'choice',
          options: AID_KINDS.map(({ id, name }) => ({ value: id, label: name })),
          optional: true,
        },
      },
    },
    mark: {
      is: 'choice',
      options: [
        { value: 'triangle', label: 'Triangle' },
        { value: 'numbers', label: 'Numbers' },
      ],
      optional: true,
      carried: true,
    },
    contacts: {
      is: 'list',
      most: 2000,
      optional: true,
      of: {
        is: 'group',
        fields: {
          between: { is: 'list', least: 2, most: 2, of: { is: 'id', of: 'piece' } },
          how: {
            is: 'choice',
            options: [
              { value: 'glued', label: 'Glued' },
              { value: 'in part', label: 'Glued in part' },
              { value: 'dry', label: 'Dry' },
              { value: 'fastened', label: 'Fastened' },
            ],
          },
          clearance: { is: 'length', optional: true },
        },
      },
    },
    plan: { is: 'gluePlan', optional: true },
  },
  flow: { joins: true },
  begin: () => ({ along: 'width' }),
  run: runGlue,
  takes: ({ parts }) => parts?.map(({ piece }) => piece),
  notYet: ({ contacts, parts }) =>
    contacts?.length || parts?.some(({ sacrificial }) => sacrificial)
      ? 'Clearances and sacrificial pieces are kept in the job but not computed yet: parts are glued all over.'
      : undefined,
  ownIds: ({ plan }) => ({ 'plan.clamps': plan?.clamps ?? [] }),
  operations: (_step, { entry }) => [
    {
      instead: 'glue-up',
      say: [
        `Lay ${counted(entry.laid?.length ?? 0, 'part')} in their order, spread the glue and close the joints.`,
      ],
    },
  ],
  labour: { setUp: 20, each: 0 },
  caution: 'Gloves and fresh air as the glue’s label asks; it comes first.',
};
