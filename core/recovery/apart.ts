import type { BuildDocument } from '../document';
import { edgeAnew } from '../edit';
import { sawDoes } from '../kit';
import { accentWood, LEAST_ACCENT_MM } from '../review';
import { lostApart } from '../steps';
import type { Remedy, Trouble } from './trouble';
import { jointsAt } from './where';

const sawOf = ({ shop }: BuildDocument, work: 'rip' | 'crosscut') =>
  shop.saws.find((saw) => sawDoes(saw, work));

/** Where a glued piece is cut apart: at a joint or at a band, and what is lost by it in all. */
function apartAt({ told, where }: Trouble) {
  const piece = told.pieces?.[0] ?? where.entry.pieces[0]?.id;
  if (piece === undefined) return undefined;
  const joint = jointsAt(where).find((each) => each.joint === told.joint);
  const along = joint?.along ?? (where.joined?.along === 'length' ? 'length' : 'width');
  const kerf = sawOf(where.build, along === 'width' ? 'rip' : 'crosscut')?.kerf.mm ?? 0;
  const first = joint ? joint.at - kerf / 2 : told.from?.mm;
  if (first === undefined || !(first > 0)) return undefined;
  const out = joint ? undefined : told.wide;
  return {
    at: { step: where.step.id, piece, along, first: { mm: first }, ...(out && out.mm > 0 ? { out } : {}) },
    lostMm: lostApart(out, kerf) + 2 * edgeAnew(where.build, along),
  };
}

/** A glued piece cut apart at a joint or a band, and glued together again; with an accent strip as wide as what that takes, or without. */
export const cutApart =
  (words: string, says: string, withAccent: boolean): Remedy =>
  (trouble) => {
    const apart = apartAt(trouble);
    if (!apart || trouble.where.made !== 'glued') return [];
    const { at, lostMm } = apart;
    if (withAccent && lostMm < LEAST_ACCENT_MM) return [];
    return [
      {
        label: withAccent ? [words, ', with an accent strip of ', { mm: lostMm }] : [words],
        says: [
          says,
          ' Saw and jointing take ',
          { mm: lostMm },
          ...(withAccent
            ? [' in all, which the accent strip gives back.']
            : [' in all: so much narrower or shorter it becomes.']),
        ],
        edits: [
          {
            do: 'glueAnew',
            ...at,
            ...(withAccent ? { accent: { mm: lostMm, species: accentWood(trouble.struck) } } : {}),
          },
        ],
      },
    ];
  };
