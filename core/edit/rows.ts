import { type Assembly, type BuildDocument, isTurned, type LaidPart, type Step } from '../document';
import {
  assemblyOf,
  type GlueStep,
  glueUpAt,
  rips,
  sliceBefore,
  sliceIds,
  type SliceStep,
  sparesOf,
} from '../steps';

/** The most slices that are cut from a blank or laid into a glue-up. */
const MOST_PARTS = 2000;

const replace = (build: BuildDocument, changed: Step): BuildDocument => ({
  ...build,
  steps: build.steps.map((step) => (step.id === changed.id ? changed : step)),
});

/** Puts a spare in a part's place, turned as the part was; the part becomes the spare. */
export function swapSpare(build: BuildDocument, glueId: string, piece: string): BuildDocument {
  const glue = glueUpAt(build, glueId);
  if (!glue?.parts) return build;
  const [spare] = sparesOf(build, glue);
  if (!spare) return build;
  const parts = glue.parts.map((part) => (part.piece === piece ? { ...part, piece: spare } : part));
  return replace(build, { ...glue, parts });
}

/**
 * Lays so many more rows into a glue-up of slices: spare slices first, then more are cut from every blank. Spoilt ones
 * leave the lay-up. Rules go on over the new rows. Changes nothing where the step lays no slices.
 */
export function addRows(build: BuildDocument, glueId: string, rows: number): BuildDocument {
  const glue = glueUpAt(build, glueId);
  const slice = glue && sliceBefore(build, glue);
  if (!glue || !slice || rows < 1) return build;
  const spoilt = new Set(slice.spoilt);
  const laid = (glue.parts ?? sliceIds(build, slice).map((piece): LaidPart => ({ piece }))).filter(
    ({ piece }) => !spoilt.has(piece),
  );
  const free = (at: BuildDocument, step: SliceStep) =>
    sliceIds(at, step).filter((id) => !spoilt.has(id) && !laid.some(({ piece }) => piece === id));
  let cut = slice;
  let next = build;
  // Each slice more gives at least one that is free, unless it was spoilt before.
  const most = Math.min(MOST_PARTS, slice.count + rows + spoilt.size);
  while (free(next, cut).length < rows && cut.count < most) {
    cut = { ...cut, count: cut.count + 1 };
    next = replace(next, cut);
  }
  if (free(next, cut).length < rows) return build;
  const more = free(next, cut)
    .slice(0, rows)
    .map((piece): LaidPart => ({ piece }));
  return replace(next, { ...glue, parts: [...laid, ...more] });
}

/** Parts with what the rule turns written on them: a part laid in between would throw the rule out of step. */
export const turnedByHand = (glue: GlueStep, parts: readonly LaidPart[]): LaidPart[] =>
  parts.map((part, i) => {
    const rule = glue.turns;
    return rule && isTurned(rule, i + 1) ? { ...part, [rule.turn]: !part[rule.turn] } : part;
  });

/**
 * Lays a thin strip of another wood into the middle of a glue-up, as wide as what is missing. Among strips it is one
 * more strip; among slices a strip of its own, laid across. Changes nothing where the step lays neither.
 */
export function addAccent(
  build: BuildDocument,
  glueId: string,
  accent: { mm: number; species: string; length: number; thickness: number },
): BuildDocument {
  const glue = glueUpAt(build, glueId);
  if (!glue) return build;
  const slice = sliceBefore(build, glue);
  const own = slice ? undefined : assemblyOf(build, glueId);
  const parts =
    glue.parts ??
    (slice ? sliceIds(build, slice) : (own?.slots.map(({ id }) => id) ?? [])).map(
      (piece): LaidPart => ({ piece }),
    );
  const used = new Set(build.assemblies.flatMap(({ slots }) => slots.map(({ id }) => id)));
  let n = 1;
  while (used.has(`accent-${n}`)) n += 1;
  const id = `accent-${n}`;
  const slot = {
    id,
    species: accent.species,
    length: { mm: accent.length },
    width: { mm: accent.mm },
    thickness: { mm: accent.thickness },
  };
  const middle = Math.floor(parts.length / 2);
  if (own)
    return {
      ...replace(build, { ...glue, parts: parts.toSpliced(middle, 0, { piece: id }) }),
      assemblies: build.assemblies.map((a) => (a.id === own.id ? { ...a, slots: [...a.slots, slot] } : a)),
    };
  const saw = rips(build)[0]?.saw ?? build.shop.saws[0]?.id ?? '';
  const assembly: Assembly = { id: `lay-up-${id}`, name: 'Accent strip', repeat: 1, slots: [slot] };
  const rip: Step = {
    id: `rip-${id}`,
    kind: 'rip',
    inputs: [],
    output: `strips-${id}`,
    assembly: assembly.id,
    saw,
    fence: 'shared',
  };
  const laid: GlueStep = {
    ...glue,
    inputs: [...glue.inputs, rip.output],
    parts: turnedByHand(glue, parts).toSpliced(middle, 0, { piece: id, quarter: glue.along === 'length' }),
    turns: undefined,
  };
  const at = build.steps.findIndex(({ id: own }) => own === glueId);
  const steps = build.steps.toSpliced(at, 1, rip, laid);
  return { ...build, assemblies: [...build.assemblies, assembly], steps };
}
