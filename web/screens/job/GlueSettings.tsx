import { LAY_ALONG, ruleOf } from '../../../core/view';
import { useState } from 'react';
import { type BuildDocument, ruleText, type TurnRule } from '../../../core/document';
import { assemblyOf, type GlueStep } from '../../../core/steps';
import { useDisplay } from '../../app/display';
import { changeKit } from '../../app/kit';
import { Toggle } from '../../parts/Toggle';
import { CountField } from '../../parts/CountField';
import { LengthField } from '../../parts/LengthField';
import { PartPlaces } from './PartPlaces';
import { useEdit, useSettle } from './use-edit';

/** A glue-up: which parts are turned and shifted by rule, what is pencilled across them, and a lay-up kept as a rule. */
export function GlueSettings({ build, step }: { build: BuildDocument; step: GlueStep }) {
  const edit = useEdit();
  const strips = assemblyOf(build, step.id);
  const placed = step.parts?.some(({ place }) => place?.x !== undefined);
  return (
    <div className="flex flex-col gap-2.5">
      {!placed && !(step.rows && strips) && (
        <Toggle
          label="Parts lie"
          value={step.along}
          options={[...LAY_ALONG]}
          onChange={(along) =>
            edit({
              do: 'setStep',
              step: step.id,
              // Rows lie across the parts: laid another way, they are typed anew.
              change: { along, ...(step.rows ? { rows: undefined } : {}) },
            })
          }
        />
      )}
      {!strips && !placed && <TurnRuleSettings step={step} />}
      {step.shifts && <ShiftSettings step={step} />}
      <PartPlaces build={build} step={step} list={!strips} />
      <Toggle
        label="Pencilled across"
        value={step.mark ?? 'none'}
        options={[
          { value: 'none', label: 'Nothing' },
          { value: 'triangle', label: 'A triangle' },
          { value: 'numbers', label: 'Numbers' },
        ]}
        onChange={(mark) =>
          edit({ do: 'setStep', step: step.id, change: { mark: mark === 'none' ? undefined : mark } })
        }
      />
      {strips && step.along === 'width' && !step.rows && <KeepRule build={build} step={step} />}
    </div>
  );
}

/** Which parts are turned: a rule, and exceptions made on the bench. */
function TurnRuleSettings({ step }: { step: GlueStep }) {
  const edit = useEdit();
  const settle = useSettle();
  const rule = step.turns;
  return (
    <>
      <Toggle
        label="Parts are turned"
        value={rule?.turn ?? 'none'}
        options={[
          { value: 'none', label: 'Not' },
          { value: 'endForEnd', label: 'End for end' },
          { value: 'rollOver', label: 'Rolled over' },
          ...(rule?.turn === 'quarter' ? [{ value: 'quarter', label: 'A quarter' }] : []),
        ]}
        onChange={(next) =>
          edit({
            do: 'setRule',
            step: step.id,
            rule:
              next === 'none'
                ? undefined
                : { every: 2, first: 2, except: [], ...rule, turn: next as TurnRule['turn'] },
          })
        }
      />
      {rule && (
        <>
          <div className="grid grid-cols-2 gap-3">
            <CountField
              label="Every n-th, n"
              value={rule.every}
              most={100}
              onChange={(every) =>
                edit({ do: 'setRule', step: step.id, rule: { ...rule, every } }, `${step.id}.every`)
              }
              onSettled={settle}
            />
            <CountField
              label="From part"
              value={rule.first}
              most={2000}
              onChange={(first) =>
                edit({ do: 'setRule', step: step.id, rule: { ...rule, first } }, `${step.id}.first`)
              }
              onSettled={settle}
            />
          </div>
          <p className="text-[14px]">
            {ruleText(rule)}.
            {rule.except.length > 0 && (
              <button
                type="button"
                className="text-chalk ml-2 underline"
                onClick={() => edit({ do: 'setRule', step: step.id, rule: { ...rule, except: [] } })}
              >
                No exceptions
              </button>
            )}
          </p>
        </>
      )}
    </>
  );
}

/** How far rows are shifted. */
function ShiftSettings({ step }: { step: GlueStep }) {
  const edit = useEdit();
  const settle = useSettle();
  const display = useDisplay();
  const { shifts } = step;
  if (!shifts) return null;
  return (
    <LengthField
      label={shifts.wrap ? 'Each row shifted further by' : `Every ${shifts.every}. part shifted by`}
      value={shifts.by}
      display={display}
      rule={{ minMm: 0, maxMm: 2000 }}
      onChange={(by) =>
        edit({ do: 'setStep', step: step.id, change: { shifts: { ...shifts, by } } }, `${step.id}.shift`)
      }
      onSettled={settle}
    />
  );
}

/** Keeps the lay-up with the shop, to be planned to another size in another job. */
function KeepRule({ build, step }: { build: BuildDocument; step: GlueStep }) {
  const [name, setName] = useState<string>();
  const [kept, setKept] = useState(false);
  const keep = () => {
    const rule = ruleOf(build, step, name?.trim() || build.name.slice(0, 60));
    changeKit((shop) => {
      const rules = shop.layUps ?? [];
      const used = new Set(rules.map(({ id }) => id));
      let n = rules.length + 1;
      while (used.has(`rule-${n}`)) n += 1;
      return { ...shop, layUps: [...rules, { id: `rule-${n}`, ...rule }] };
    });
    setName(undefined);
    setKept(true);
  };
  if (kept)
    return (
      <p role="status" className="text-[13.5px]">
        Kept as a rule: choose “Own lay-up” in a new job.
      </p>
    );
  if (name === undefined)
    return (
      <button type="button" className="action self-start" onClick={() => setName(build.name.slice(0, 60))}>
        Save as my pattern
      </button>
    );
  return (
    <form
      className="flex items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <label className="label block flex-1">
        Name of the rule
        <input
          className="field mt-0.5 w-full font-sans!"
          maxLength={60}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <button type="submit" className="action action-main">
        Keep
      </button>
    </form>
  );
}
