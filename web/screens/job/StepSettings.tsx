import { useState } from 'react';
import type { BuildDocument, Cutter, Edit, Step } from '../../../core/document';
import { doesWork } from '../../../core/kit';
import {
  amountsOf,
  asFeatures,
  asFit,
  asGlueUp,
  type Fixing,
  roomOf,
  type Setting,
} from '../../../core/steps';
import type { Length } from '../../../core/units';
import { toolsFor } from '../../../core/view';
import { useDisplay } from '../../app/display';
import { Choice } from '../../parts/Choice';
import { Tick } from '../../parts/Tick';
import { Toggle } from '../../parts/Toggle';
import { CountField } from '../../parts/CountField';
import { LengthField } from '../../parts/LengthField';
import { NumberField } from '../../parts/NumberField';
import { CountsField } from '../../parts/CountsField';
import { GlueSettings } from './GlueSettings';
import { GroupList } from './GroupList';
import { FixingsField } from './FixingsField';
import { OutlineField } from './OutlineField';
import { useEdit, useSettle } from './use-edit';
import { lazily } from '../../parts/lazily';
import { WOODS } from '../../parts/woods';

// What it stands on, the worker that predicts and the window with its drawing, is fetched when a step has features.
const FeatureList = lazily(() => import('./FeatureList'), 'FeatureList');

const FittingList = lazily(() => import('./FittingList'), 'FittingList');

const NOTHING: Length = { mm: 0 };
/** Up to so many choices lie side by side; more of them, or longer words, open as a list. */
const SIDE_BY_SIDE = 2;

/** The settings of a step, as its room describes them; a glue-up's are its own. */
export function StepSettings({ build, step, as = step }: { build: BuildDocument; step: Step; as?: Step }) {
  const { fields } = roomOf(step);
  const glue = asGlueUp(step);
  const shown = Object.entries(fields).filter(
    ([, { label, when }]) => label !== undefined && (when?.(step as never) ?? true),
  );
  if (glue) return <GlueSettings build={build} step={glue} />;
  if (shown.length === 0) return null;
  const groups = [...new Set(shown.flatMap(([, { group }]) => group ?? []))];
  return (
    <>
      <Fields build={build} step={step} as={as} list={shown.filter(([, { group }]) => !group)} />
      {groups.map((group) => (
        <Group
          key={group}
          title={group}
          build={build}
          step={step}
          as={as}
          list={shown.filter((each) => each[1].group === group)}
        />
      ))}
    </>
  );
}

/**
 * A change of one setting. Where a size to reach decided the amounts, one that is typed leaves the other as it was played; and
 * where the size is taken away, they stay as they were.
 */
function changeOf(as: Step, name: string, next: unknown): Record<string, unknown> {
  const off = (roomOf(as).takesOff?.(as) ?? []).find(
    ({ to, reach, settings }) =>
      to && (settings.includes(name) || (reach?.to === name && next === undefined)),
  );
  return { ...(off ? amountsOf(as, off.dimension) : {}), [name]: next };
}

interface FieldsPart {
  build: BuildDocument;
  step: Step;
  as: Step;
  list: readonly [string, Setting][];
}

const Fields = ({ list, ...part }: FieldsPart) => (
  <div className="grid grid-cols-2 gap-x-3 gap-y-2.5">
    {list.map(([name, field]) => (
      <StepField key={name} {...part} name={name} field={field} />
    ))}
  </div>
);

/** Settings that are seldom set, folded; open from the start where one of them is. */
function Group({ title, ...part }: FieldsPart & { title: string }) {
  const set = part.list.filter(
    ([name]) => (part.step as unknown as Record<string, unknown>)[name] !== undefined,
  ).length;
  const [open, setOpen] = useState(set > 0);
  return (
    <details open={open} onToggle={({ currentTarget }) => setOpen(currentTarget.open)}>
      <summary className="text-chalk min-h-6 cursor-pointer text-[14px] font-medium max-desk:min-h-11">
        {title}
        {set > 0 && !open && <span className="text-graphite font-normal">, {set} set</span>}
      </summary>
      <div className="pt-1.5">
        <Fields {...part} />
      </div>
    </details>
  );
}

/** What counts while a number is missing. */
const usualOf = (usual: Extract<Setting, { is: 'number' }>['usual'], step: Step): number | undefined =>
  typeof usual === 'function' ? usual(step as never) : usual;

/** One setting, drawn by what it is. */
function StepField({
  build,
  step,
  as,
  name,
  field,
}: {
  build: BuildDocument;
  step: Step;
  /** The step with the amounts that were played. */
  as: Step;
  name: string;
  field: Setting;
}) {
  const edit = useEdit();
  const settle = useSettle();
  const display = useDisplay();
  const { settingStep } = build.shop;
  const value: unknown = (as as unknown as Record<string, unknown>)[name];
  const label = typeof field.label === 'function' ? field.label(step as never) : (field.label ?? '');
  const set = (next: unknown) =>
    edit({ do: 'setStep', step: step.id, change: changeOf(as, name, next) }, `${step.id}.${name}`);
  const optional = field.is === 'length' && field.optional === true;
  switch (field.is) {
    case 'length':
      return (
        <LengthField
          label={label}
          value={(value as Length | undefined) ?? NOTHING}
          unset={optional}
          display={display}
          rule={{ minMm: field.least ?? 0, maxMm: field.most ?? 2000 }}
          stepMm={settingStep.mm}
          onChange={(length) => set(optional && length.mm === 0 ? undefined : length)}
          onSettled={settle}
        />
      );
    case 'number': {
      const { least, most } = field.card ?? { least: field.least ?? 0, most: field.most ?? 100_000 };
      const shown = (value as number | undefined) ?? usualOf(field.usual, step) ?? least;
      return field.whole || field.card?.whole ? (
        <CountField label={label} value={shown} least={least} most={most} onChange={set} onSettled={settle} />
      ) : (
        <NumberField label={label} value={shown} least={least} most={most} onChange={set} />
      );
    }
    case 'choice':
      return field.options.length > SIDE_BY_SIDE ? (
        <Choice
          label={label}
          className="col-span-2"
          value={(value as string | undefined) ?? field.options[0].value}
          options={[...field.options]}
          onChange={set}
        />
      ) : (
        <div className="col-span-2">
          <Toggle
            label={label}
            value={(value as string | undefined) ?? field.options[0].value}
            onChange={set}
            options={[...field.options]}
          />
        </div>
      );
    case 'text':
      return (
        <label className="label col-span-2 block">
          {label}
          <input
            className="field mt-0.5 w-full font-sans!"
            value={(value as string | undefined) ?? ''}
            maxLength={field.most}
            onChange={({ target }) => set(target.value || undefined)}
            onBlur={settle}
          />
        </label>
      );
    case 'flag':
      return (
        <div className="col-span-2">
          <Tick label={label} checked={value === true} onChange={(on) => set(on || undefined)} />
        </div>
      );
    case 'id':
      if (field.of === 'wood')
        return (
          <Choice
            label={label}
            className="col-span-2"
            value={(value as string | undefined) ?? ''}
            options={WOODS}
            onChange={set}
          />
        );
      return (
        <Choice
          label={label}
          className="col-span-2"
          value={(value as string | undefined) ?? ''}
          options={toolsFor(step, field.of, build.shop, value).map(({ id, name: tool }) => ({
            value: id,
            label: tool,
          }))}
          onChange={(id) =>
            edit(
              field.of === 'saw'
                ? { do: 'useSaw', step: step.id, saw: id }
                : { do: 'useMachine', step: step.id, machine: id },
            )
          }
        />
      );
    case 'cutter':
      return (
        <CutterChoice
          build={build}
          label={label}
          cutter={value as Cutter}
          onChange={(cutter) => edit({ do: 'useCutter', step: step.id, cutter } satisfies Edit)}
        />
      );
    case 'list':
      if (field.of.is === 'feature') {
        const features = asFeatures(step);
        return features ? (
          <section className="col-span-2" aria-label={label}>
            <h3 className="label pb-1">{label}</h3>
            <FeatureList build={build} step={features} />
          </section>
        ) : null;
      }
      if (field.of.is === 'fitting') {
        const fit = asFit(step);
        return fit ? (
          <section className="col-span-2" aria-label={label}>
            <h3 className="label pb-1">{label}</h3>
            <FittingList build={build} step={fit} />
          </section>
        ) : null;
      }
      if (field.of.is === 'number')
        return (
          <CountsField
            label={label}
            values={(value as number[] | undefined) ?? []}
            least={field.of.least ?? 0}
            most={field.of.most ?? 10_000}
            many={field.most}
            onChange={(next) => set(next.length > 0 ? next : undefined)}
            onSettled={settle}
          />
        );
      if (field.of.is === 'group' && Object.values(field.of.fields).some((each) => each.label))
        return (
          <GroupList
            label={label}
            fields={field.of.fields}
            most={field.most}
            rows={(value as Record<string, unknown>[] | undefined) ?? []}
            onChange={(next, mark) =>
              edit(
                {
                  do: 'setStep',
                  step: step.id,
                  change: { [name]: next.length > 0 || !field.optional ? next : undefined },
                },
                mark && `${step.id}.${name}.${mark}`,
              )
            }
          />
        );
      if (field.of.is === 'group' && field.of.fields.kind?.is === 'choice')
        return (
          <FixingsField
            label={label}
            kinds={field.of.fields.kind.options}
            most={field.most}
            fixings={(value as Fixing[] | undefined) ?? []}
            onChange={(next) => set(next.length > 0 ? next : undefined)}
          />
        );
      return (
        <OutlineField
          label={label}
          build={build}
          step={step}
          onChange={(next, mark) =>
            edit(
              { do: 'setStep', step: step.id, change: { [name]: next } },
              mark && `${step.id}.${name}.${mark}`,
            )
          }
        />
      );
    default:
      return null;
  }
}

/** A saw, or a plane that leaves no kerf. */
function CutterChoice({
  build,
  label,
  cutter,
  onChange,
}: {
  build: BuildDocument;
  label: string;
  cutter: Cutter;
  onChange: (cutter: Cutter) => void;
}) {
  const options = [
    ...build.shop.saws.map(({ id, name }) => ({ value: `saw:${id}`, label: name })),
    ...build.shop.machines
      .filter((machine) => doesWork(machine, 'trim'))
      .map(({ id, name }) => ({ value: `machine:${id}`, label: `${name}, no kerf` })),
  ];
  return (
    <Choice
      label={label}
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
