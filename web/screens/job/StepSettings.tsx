import { type BuildDocument, type Step, type Cutter } from '../../../core/build';
import type { Length } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { Choice, Toggle } from '../../parts/Choice';
import { CountField } from '../../parts/CountField';
import { LengthField } from '../../parts/LengthField';
import { NumberField } from '../../parts/NumberField';
import { GlueSettings } from './GlueSettings';
import { useEdit, useSettle } from './use-edit';

const FROM_ZERO = { minMm: 0, maxMm: 2000 };
const NOTHING: Length = { mm: 0 };

/** The settings of a step, by its kind. */
export function StepSettings({ build, step }: { build: BuildDocument; step: Step }) {
  const edit = useEdit();
  const settle = useSettle();
  const display = useDisplay();
  const { saws, machines, settingStep } = build.shop;
  const set = (change: Record<string, unknown>, mark?: string) =>
    edit({ do: 'setStep', step: step.id, change }, mark && `${step.id}.${mark}`);
  const length = (name: string, label: string, value: Length, rule = FROM_ZERO) => (
    <LengthField
      key={name}
      label={label}
      value={value}
      display={display}
      rule={rule}
      stepMm={settingStep.mm}
      onChange={(next) => set({ [name]: next }, name)}
      onSettled={settle}
    />
  );
  const sawChoice = (saw: string) => (
    <Choice
      label="Saw"
      value={saw}
      className="col-span-2"
      onChange={(next) => edit({ do: 'useSaw', step: step.id, saw: next })}
      options={saws.map(({ id, name }) => ({ value: id, label: name }))}
    />
  );
  const machineChoice = (machine: string, label = 'With') => (
    <Choice
      label={label}
      value={machine}
      className="col-span-2"
      onChange={(next) => edit({ do: 'useMachine', step: step.id, machine: next })}
      options={machines.map(({ id, name }) => ({ value: id, label: name }))}
    />
  );
  const grid = (children: React.ReactNode) => (
    <div className="grid grid-cols-2 gap-x-3 gap-y-2.5">{children}</div>
  );
  switch (step.kind) {
    case 'rip':
      return grid(
        <>
          {sawChoice(step.saw)}
          <div className="col-span-2">
            <Toggle
              label="Fence"
              value={step.fence}
              onChange={(fence) => set({ fence })}
              options={[
                { value: 'shared', label: 'One setting a width' },
                { value: 'separate', label: 'Set for each' },
              ]}
            />
          </div>
        </>,
      );
    case 'mill':
      return grid(
        <>
          {machineChoice(step.machine)}
          {length('face', 'Off each face', step.face)}
          {length('edge', 'Off each edge', step.edge)}
        </>,
      );
    case 'flatten':
      return grid(
        <>
          {machineChoice(step.machine, 'Flatten with')}
          {length('top', 'Off the upper face', step.top)}
          {length('bottom', 'Off the lower face', step.bottom)}
          {length('carrier', 'Carrier board under it', step.carrier ?? NOTHING)}
        </>,
      );
    case 'joint':
      return grid(
        <>
          {machineChoice(step.machine)}
          {length('near', 'Off the near edge', step.near)}
          {length('far', 'Off the far edge', step.far)}
        </>,
      );
    case 'slice':
      return grid(
        <>
          {sawChoice(step.saw)}
          {length('thickness', 'Slice thickness', step.thickness, { minMm: 0.5, maxMm: 2000 })}
          <CountField
            label="Slices"
            value={step.count}
            most={2000}
            onChange={(count) => set({ count }, 'count')}
            onSettled={settle}
          />
          {length('head', 'Cut off first', step.head)}
          {length('hold', 'Left in hand after the last', step.hold ?? NOTHING)}
        </>,
      );
    case 'crosscut':
      return grid(
        <>
          {sawChoice(step.saw)}
          {length('length', 'Length', step.length, { minMm: 1, maxMm: 100_000 })}
        </>,
      );
    case 'trim':
      return grid(
        <>
          <CutterChoice
            build={build}
            cutter={step.cutter}
            onChange={(cutter) => edit({ do: 'useCutter', step: step.id, cutter })}
          />
          {length('start', 'Off the left end', step.start)}
          {length('end', 'Off the right end', step.end)}
          {length('near', 'Off the near edge', step.near)}
          {length('far', 'Off the far edge', step.far)}
        </>,
      );
    case 'oblique':
      return grid(
        <>
          {sawChoice(step.saw)}
          <NumberField
            label={step.tilt === 'ripBevel' ? 'Blade to the face, degrees' : 'Cut to the length, degrees'}
            value={step.angleDegrees}
            least={10}
            most={90}
            onChange={(angleDegrees) => set({ angleDegrees }, 'angle')}
          />
          {!step.ends &&
            length('thickness', 'Width across the cut', step.thickness, { minMm: 0.5, maxMm: 2000 })}
          {!step.ends && (
            <CountField
              label="Pieces"
              value={step.count}
              most={2000}
              onChange={(count) => set({ count }, 'count')}
              onSettled={settle}
            />
          )}
          {!step.ends && length('head', 'Cut off first', step.head)}
        </>,
      );
    case 'resaw':
      return grid(
        <>
          {sawChoice(step.saw)}
          <CountField
            label="Leaves"
            value={step.leaves}
            least={2}
            most={50}
            onChange={(leaves) => set({ leaves }, 'leaves')}
            onSettled={settle}
          />
        </>,
      );
    case 'glue':
      return <GlueSettings build={build} step={step} />;
    default:
      return null;
  }
}

export function CutterChoice({
  build,
  cutter,
  onChange,
}: {
  build: BuildDocument;
  cutter: Cutter;
  onChange: (cutter: Cutter) => void;
}) {
  const options = [
    ...build.shop.saws.map(({ id, name }) => ({ value: `saw:${id}`, label: name })),
    ...build.shop.machines
      .filter(({ kind }) => kind === 'hand planes' || kind === 'jointer' || kind === 'planer')
      .map(({ id, name }) => ({ value: `machine:${id}`, label: `${name}, no kerf` })),
  ];
  return (
    <Choice
      label="Trim with"
      value={'saw' in cutter ? `saw:${cutter.saw}` : `machine:${cutter.machine}`}
      options={options}
      className="col-span-2"
      onChange={(next) => {
        const [kind, id] = next.split(':');
        onChange(kind === 'saw' ? { saw: id } : { machine: id });
      }}
    />
  );
}
