import { Plus, X } from 'lucide-react';
import { useState } from 'react';
import type { BuildDocument } from '../../../core/document';
import {
  type Fitting,
  FITTING_LIST,
  type FittingKindName,
  fittingKindOf,
  fittingName,
  type FitStep,
  MOST_FITTINGS,
} from '../../../core/steps';
import { useDisplay } from '../../app/display';
import { freshId } from '../../app/ids';
import { fittingBegun } from '../../app/predicting';
import { useAppSelector } from '../../app/store';
import { DropDown } from '../../parts/DropDown';
import { type Described, DescribedField } from './DescribedField';
import { Facts } from './Facts';
import { useEdit } from './use-edit';

/** What is fitted to a piece, each with its settings and what a year of movement makes of it. */
export function FittingList({ build, step }: { build: BuildDocument; step: FitStep }) {
  const edit = useEdit();
  const display = useDisplay();
  const facts = useAppSelector(({ job }) => job.outlook?.steps.find(({ id }) => id === step.id)?.facts) ?? [];
  const [why, setWhy] = useState<string>();
  const { fittings } = step;
  const set = (next: Fitting[], mark?: string) =>
    edit({ do: 'setStep', step: step.id, change: { fittings: next } }, mark && `${step.id}.${mark}`);
  const add = async (kind: FittingKindName) => {
    const begun = await fittingBegun(build, step.id, kind, freshId('fitting', fittings)).catch(
      () => undefined,
    );
    setWhy(begun ? undefined : 'Nothing comes here yet: mend what comes before it first.');
    if (begun) set([...fittings, begun]);
  };
  return (
    <div className="flex flex-col gap-3">
      {fittings.map((fitting, i) => (
        <fieldset key={fitting.id} className="border-line border-b border-dotted pb-3">
          <legend className="flex w-full items-center gap-2 pb-1">
            <span className="mr-auto text-[15px] font-semibold">
              {i + 1}. {fittingName(fitting)}
            </span>
            <button
              type="button"
              className="action px-2"
              aria-label={`Remove ${i + 1}. ${fittingName(fitting)}`}
              onClick={() => set(fittings.filter(({ id }) => id !== fitting.id))}
            >
              <X size={15} aria-hidden />
            </button>
          </legend>
          <div className="grid grid-cols-2 items-end gap-x-3 gap-y-2">
            {Object.entries(fittingKindOf(fitting).fields).map(([name, field]) => (
              <DescribedField
                key={name}
                name={name}
                field={field as Described<Fitting>}
                whole={fitting}
                onChange={(next, mark) =>
                  set(
                    fittings.map((each) =>
                      each.id === fitting.id ? ({ ...each, ...next } as Fitting) : each,
                    ),
                    mark && `${fitting.id}.${mark}`,
                  )
                }
              />
            ))}
          </div>
          <div className="pt-2">
            <Facts
              facts={facts.filter(({ of }) => of === fitting.id)}
              display={display}
              title={`${i + 1}. ${fittingName(fitting)} over the year`}
            />
          </div>
        </fieldset>
      ))}
      {fittings.length === 0 && <p className="text-graphite text-[14px]">Nothing is fitted yet.</p>}
      {why && (
        <p role="status" className="text-red text-[14px]">
          {why}
        </p>
      )}
      {fittings.length < MOST_FITTINGS && (
        <DropDown
          label="What is fitted to it"
          className="action self-start"
          panel="p-1"
          button={
            <>
              <Plus size={15} aria-hidden /> Fit something
            </>
          }
        >
          {(close) => (
            <ul className="max-h-[60vh] overflow-auto">
              {FITTING_LIST.map(({ kind, name, says }) => (
                <li key={kind}>
                  <button
                    type="button"
                    className="hover:bg-chalk-wash block w-full rounded px-3 py-2 text-left max-desk:min-h-11"
                    onClick={() => {
                      close();
                      void add(kind);
                    }}
                  >
                    <span className="block text-[15px] font-medium">{name}</span>
                    <span className="text-graphite block max-w-80 text-[13px]">{says}</span>
                  </button>
                </li>
              ))}
            </ul>
          )}
        </DropDown>
      )}
    </div>
  );
}
