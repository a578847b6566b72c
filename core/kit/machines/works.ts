/**
 * What machines and saws do to wood, each in words after the tool's name: “Drill press bores holes”. Every other part of
 * Junta asks for one of these and never for a kind of machine by its name.
 */
export const WORKS = {
  mill: 'brings rough strips to thickness',
  flatten: 'flattens faces',
  joint: 'joints edges',
  rip: 'rips',
  crosscut: 'crosscuts',
  resaw: 'resaws',
  trim: 'trims ends and edges',
  bore: 'bores holes',
  rout: 'routs grooves and recesses',
  shape: 'shapes outlines and edges',
  sand: 'sands',
  slot: 'cuts biscuit slots',
  mortise: 'cuts mortises for loose tenons',
} as const;

export type Work = keyof typeof WORKS;

/** What a tool does, in a sentence's end: “flattens faces and sands”. Empty for a tool that does nothing. */
export const worksText = (works: readonly Work[]): string =>
  works.length < 2
    ? works.map((work) => WORKS[work]).join('')
    : `${works
        .slice(0, -1)
        .map((work) => WORKS[work])
        .join(', ')} and ${WORKS[works[works.length - 1]]}`;
