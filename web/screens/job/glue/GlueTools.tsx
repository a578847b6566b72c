import { Plus, RotateCcw, Sparkles, Timer } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { PlannedGlueUp } from '../../../../core/glueup';
import type { GlueStep } from '../../../../core/steps';
import { bestLayout } from '../../../app/gluing';
import { useAppSelector } from '../../../app/store';
import { placedClamps } from './GlueBench';
import { usePlanGlue } from './parts';

/** What can be done to the drawing of a glue-up: clamps and aids added, laid out again, the rehearsal begun. */
export function GlueTools({ step, planned }: { step: GlueStep; planned: PlannedGlueUp }) {
  const planGlue = usePlanGlue(step);
  const view = useAppSelector(({ job }) => job.glueView);
  const joint = useAppSelector(({ job }) => job.joint);
  const shop = useAppSelector(({ job }) => job.build?.shop);
  const id = useAppSelector(({ job }) => job.id);
  const [searching, setSearching] = useState(false);
  const { clamps, glueUp, aids } = planned;
  const add = () => {
    const here = placedClamps(clamps);
    const at = widestGap(
      here.map((clamp) => clamp.at.mm),
      glueUp.lengthMm,
    );
    const used = new Set(here.map((clamp) => clamp.id));
    let n = here.length + 1;
    while (used.has(`clamp-${n}`)) n += 1;
    const like = here[0];
    planGlue({
      clamps: [
        ...here,
        {
          id: `clamp-${n}`,
          at: { mm: at },
          side: here.filter(({ side }) => side === 'below').length < here.length / 2 ? 'below' : 'above',
          forceN: like?.forceN ?? 2000,
          ...(like?.set ? { set: like.set } : {}),
        },
      ],
    });
  };
  const best = async () => {
    if (!shop) return;
    setSearching(true);
    const found = await bestLayout(planned, shop);
    setSearching(false);
    if (!found) return;
    const here = placedClamps(clamps);
    planGlue({
      clamps: found.places.map((at, i) => ({
        ...(here[i] ?? here[0]),
        id: `clamp-${i + 1}`,
        at: { mm: Math.round(at * 10) / 10 },
      })),
    });
  };
  const addAid = () => {
    const places = aids.aids.map((aid) => ({ joint: aid.joint, at: { mm: aid.at } }));
    const line = glueUp.lines.find((each) => each.joint === joint) ?? glueUp.lines[0];
    const at = widestGap(
      places.filter((place) => place.joint === line.joint).map((place) => place.at.mm),
      glueUp.lengthMm,
    );
    planGlue({
      aids: {
        ...step.plan?.aids,
        kind: aids.kind,
        places: [...places, { joint: line.joint, at: { mm: at } }],
      },
    });
  };
  return (
    <div
      role="toolbar"
      aria-label="Glue-up"
      className="border-line flex min-h-12 flex-wrap items-center gap-2 border-t px-3 py-1.5"
    >
      <span className="text-graphite text-[13px]">{HINTS[view]}</span>
      <span className="ml-auto" />
      {view === 'clamps' && !glueUp.askew && (
        <>
          <button type="button" className="action" onClick={add}>
            <Plus size={15} aria-hidden /> Clamp
          </button>
          <button
            type="button"
            className="action"
            disabled={searching || clamps.rows > 1}
            onClick={() => void best()}
          >
            <Sparkles size={15} aria-hidden /> {searching ? 'Searching …' : 'Most even'}
          </button>
          {clamps.byHand && (
            <button type="button" className="action" onClick={() => planGlue({ clamps: undefined })}>
              <RotateCcw size={15} aria-hidden /> By the method
            </button>
          )}
        </>
      )}
      {view === 'aids' && aids.size && (
        <>
          <button type="button" className="action" onClick={addAid}>
            <Plus size={15} aria-hidden /> Aid on joint {joint}
          </button>
          {step.plan?.aids?.places && (
            <button
              type="button"
              className="action"
              onClick={() => {
                const { places: _, ...rest } = step.plan?.aids ?? { kind: aids.kind };
                planGlue({ aids: rest });
              }}
            >
              <RotateCcw size={15} aria-hidden /> Let Junta place them
            </button>
          )}
        </>
      )}
      <Link className="action action-main" to={`/jobs/${id}/rehearse/${step.id}`}>
        <Timer size={15} aria-hidden /> Rehearse
      </Link>
    </div>
  );
}

const HINTS = {
  layUp: '',
  clamps: 'Drag a clamp along; press a joint for its curve.',
  glue: 'What each joint is glued with.',
  aids: 'Drag an aid along its joint; Del takes it away.',
  pace: 'Numbers are the order of tightening.',
  after: 'Press a joint to note how it came out.',
} as const;

/** The middle of the widest stretch without a clamp, the ends counted as half a stretch. */
function widestGap(places: readonly number[], length: number): number {
  const sorted = places.toSorted((a, b) => a - b);
  if (sorted.length === 0) return length / 2;
  let best = { width: 2 * sorted[0], at: sorted[0] / 2 };
  for (let i = 1; i < sorted.length; i++) {
    const width = sorted[i] - sorted[i - 1];
    if (width > best.width) best = { width, at: (sorted[i] + sorted[i - 1]) / 2 };
  }
  const tail = 2 * (length - sorted[sorted.length - 1]);
  return tail > best.width ? (length + sorted[sorted.length - 1]) / 2 : best.at;
}
