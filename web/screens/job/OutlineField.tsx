import { useMemo, useState } from 'react';
import { type BuildDocument, makerOf, type Step } from '../../../core/document';
import { isOf, type OutlineCorner } from '../../../core/steps';
import type { Vec3 } from '../../../core/solid';
import { counted } from '../../../core/units';
import { useAppSelector } from '../../app/store';
import { lazily } from '../../parts/lazily';

/** The size of what enters a step: what the nearest step before it that was played gives; known too where this one stops. */
function entering(
  build: BuildDocument,
  step: Step,
  steps: readonly { id: string; greatest: Vec3 }[],
): Vec3 | undefined {
  let at: Step | undefined = step;
  for (let guard = 0; guard <= build.steps.length; guard++) {
    at = at && makerOf(build, at.inputs[0]);
    if (!at) return undefined;
    const { id } = at;
    const known = steps.find((each) => each.id === id);
    if (known && !at.off) return known.greatest;
  }
  return undefined;
}

const OutlineWindow = lazily(() => import('./OutlineWindow'), 'OutlineWindow');

/** The outline of a step in a few words, and the way to its drawing. */
export function OutlineField({
  label,
  build,
  step,
  onChange,
}: {
  label: string;
  build: BuildDocument;
  step: Step;
  onChange: (corners: OutlineCorner[] | undefined, mark?: string) => void;
}) {
  const steps = useAppSelector(({ job }) => job.outlook?.steps);
  const size = useMemo(() => entering(build, step, steps ?? []), [build, step, steps]);
  const [open, setOpen] = useState(false);
  if (!isOf(step, 'shape')) return null;
  const corners = step.outline ?? [];
  const bent = corners.filter(({ rise, arc, through, curve }) => rise || arc || through || curve).length;
  return (
    <section className="col-span-2" aria-label={label}>
      <h3 className="label pb-0.5">{label}</h3>
      <p className="text-[14.5px]">
        {corners.length === 0
          ? 'Nothing is drawn yet: sizes pass through.'
          : `${counted(corners.length, 'corner')}, ${bent === 0 ? 'all sides straight' : `${counted(bent, 'side')} bent`}.`}
      </p>
      <div className="flex gap-2 pt-1.5">
        <button type="button" className="action" disabled={!size} onClick={() => setOpen(true)}>
          Draw the outline
        </button>
        {corners.length > 0 && (
          <button type="button" className="action" onClick={() => onChange(undefined)}>
            Take the outline away
          </button>
        )}
      </div>
      {open && size && (
        <OutlineWindow
          step={step}
          size={[size[0], step.seen === 'edge' ? size[2] : size[1]]}
          stepMm={build.shop.settingStep.mm || 1}
          onChange={(next, mark) => onChange(next.length > 0 ? next : undefined, mark)}
          onClose={() => setOpen(false)}
        />
      )}
    </section>
  );
}
