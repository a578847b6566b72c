import { type AnyField, BASE_FIELDS, FEATURE_LIST, FITTING_LIST, type Setting, STEP_ROOMS } from '../steps';

const ARTICLE = {
  saw: 'a saw',
  machine: 'a machine',
  wood: 'a wood',
  assembly: 'a lay-up',
  piece: 'a piece',
  step: 'a step',
  output: 'an output',
} as const;

/** How a field is written in the file, in a few words. */
function typeWords(field: AnyField): string {
  switch (field.is) {
    case 'length':
      return 'length';
    case 'number':
      return field.most === undefined ? 'number' : `number, ${field.least ?? 'any'} to ${field.most}`;
    case 'flag':
      return 'true or false';
    case 'choice':
      return field.options.map(({ value }) => `\`${value}\``).join(', ');
    case 'text':
      return `words, up to ${field.most}`;
    case 'moment':
      return 'time';
    case 'id':
      return `id of ${ARTICLE[field.of]}`;
    case 'cutter':
      return 'a `saw` or a `machine`';
    case 'list':
      return `list of ${typeWords(field.of)}, up to ${field.most}`;
    case 'group':
      return `{ ${Object.keys(field.fields).join(', ')} }`;
    case 'plain':
      return 'plain data';
    case 'gluePlan':
      return 'how it is glued';
    case 'feature':
      return 'feature';
    case 'fitting':
      return 'fitting';
  }
}

const settingWords = ([name, field]: [string, Setting]): string =>
  `\`${name}\`${field.optional ? '?' : ''}: ${typeWords(field)}`;

/** The kinds of step as a table of docs/format.md, in Markdown: each with what it does and its own settings. */
export function stepTable(): string {
  const rows = STEP_ROOMS.map(({ kind, name, says, fields, run }) =>
    [
      `\`${kind}\``,
      name,
      `${says}${run ? '' : ' Kept, not computed yet.'}`,
      Object.entries(fields).map(settingWords).join('; '),
    ].join(' | '),
  );
  const every = Object.entries(BASE_FIELDS as Record<string, Setting>)
    .map(settingWords)
    .join('; ');
  return [
    '| kind | name | what it does | settings |',
    '| --- | --- | --- | --- |',
    ...rows.map((row) => `| ${row} |`),
    '',
    `Every step has: ${every}. A question mark means that it may be missing.`,
  ].join('\n');
}

/** The kinds of feature as a table of docs/format.md, in Markdown: each with what it is and its own settings. */
export function featureTable(): string {
  const rows = FEATURE_LIST.map(({ kind, name, says, sides, fields }) =>
    [
      `\`${kind}\``,
      name,
      says,
      sides ? sides.map((side) => `\`${side}\``).join(', ') : 'any',
      Object.entries(fields as Record<string, Setting>)
        .map(settingWords)
        .join('; '),
    ].join(' | '),
  );
  return [
    '| kind | name | what it is | sides | settings |',
    '| --- | --- | --- | --- | --- |',
    ...rows.map((row) => `| ${row} |`),
  ].join('\n');
}

/** The kinds of fitting as a table of docs/format.md, in Markdown: each with what it is and its own settings. */
export function fittingTable(): string {
  const rows = FITTING_LIST.map(({ kind, name, says, fields }) =>
    [
      `\`${kind}\``,
      name,
      says,
      Object.entries(fields as Record<string, Setting>)
        .map(settingWords)
        .join('; '),
    ].join(' | '),
  );
  return [
    '| kind | name | what it is | settings |',
    '| --- | --- | --- | --- |',
    ...rows.map((row) => `| ${row} |`),
  ].join('\n');
}

/** The kinds of step as they are offered: in groups, each with what it does in one sentence. */
export function stepMenu(): { group: string; kinds: { kind: string; name: string; says: string }[] }[] {
  const groups = [...new Set(STEP_ROOMS.map(({ group }) => group))];
  return groups.map((group) => ({
    group,
    kinds: STEP_ROOMS.filter((room) => room.group === group).map(({ kind, name, says }) => ({
      kind,
      name,
      says,
    })),
  }));
}
