import { Plus, X } from 'lucide-react';
import type { Step } from '../../../core/document';
import { ellipseCorners, type ShapeStep } from '../../../core/steps';
import { useDisplay } from '../../app/display';
import { useAppSelector } from '../../app/store';
import { LengthField } from '../../parts/LengthField';
import { useSettle } from './use-edit';

type Corners = NonNullable<ShapeStep['outline']>;

const RULE = { minMm: -10_000, maxMm: 30_000 };

/** The corners of an outline, in mm from the left end and the near edge; begun from the piece as it comes. */
export function OutlineField({
  label,
  step,
  corners,
  onChange,
}: {
  label: string;
  step: Step;
  corners: Corners | undefined;
  onChange: (corners: Corners) => void;
}) {
  const display = useDisplay();
  const settle = useSettle();
  const size = useAppSelector(({ job }) => job.outlook?.steps.find(({ id }) => id === step.id)?.greatest);
  const own = corners ?? [];
  const at = (x: number, y: number) => ({ x: { mm: x }, y: { mm: y } });
  const put = (i: number, change: Partial<Corners[number]>) =>
    onChange(own.map((each, j) => (j === i ? { ...each, ...change } : each)));
  const round = () => {
    const [length, width] = size ?? [100, 100, 0];
    onChange(ellipseCorners(length, width));
  };
  const begin = () => {
    const [length, width] = size ?? [100, 100, 0];
    onChange([at(0, 0), at(length, 0), at(length, width), at(0, width)]);
  };
  return (
    <fieldset className="col-span-2 flex flex-col gap-1.5">
      <legend className="label pb-0.5">{label}</legend>
      {own.map((corner, i) => (
        <div key={i} className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
          {(['x', 'y'] as const).map((name) => (
            <LengthField
              key={name}
              label={`${i + 1}: ${name === 'x' ? 'from the left end' : 'from the near edge'}`}
              value={corner[name]}
              display={display}
              rule={RULE}
              onChange={(next) => put(i, { [name]: next })}
              onSettled={settle}
            />
          ))}
          <LengthField
            label={`${i + 1}: rise of the side to the next`}
            value={corner.rise ?? { mm: 0 }}
            unset
            display={display}
            rule={RULE}
            onChange={(rise) => put(i, { rise: rise.mm === 0 ? undefined : rise })}
            onSettled={settle}
          />
          <LengthField
            label={`${i + 1}: radius of the corner`}
            value={corner.radius ?? { mm: 0 }}
            unset
            display={display}
            rule={{ minMm: 0, maxMm: 30_000 }}
            onChange={(radius) => put(i, { radius: radius.mm === 0 ? undefined : radius })}
            onSettled={settle}
          />
          <button
            type="button"
            className="action row-start-1 col-start-3 flex h-8 w-8 items-center justify-center p-0!"
            aria-label={`Remove corner ${i + 1}`}
            onClick={() => onChange(own.filter((_, j) => j !== i))}
          >
            <X size={14} aria-hidden />
          </button>
        </div>
      ))}
      <div className="flex gap-2">
        {own.length === 0 ? (
          <>
            <button type="button" className="action inline-flex items-center gap-1.5" onClick={begin}>
              Begin with the four corners of the piece
            </button>
            <button type="button" className="action inline-flex items-center gap-1.5" onClick={round}>
              Begin with an ellipse
            </button>
          </>
        ) : (
          <button
            type="button"
            className="action inline-flex items-center gap-1.5"
            onClick={() => onChange([...own, own[own.length - 1]])}
          >
            <Plus size={14} aria-hidden /> Add a corner
          </button>
        )}
      </div>
    </fieldset>
  );
}
