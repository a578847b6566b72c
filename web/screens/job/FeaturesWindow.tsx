import { ArrowDown, ArrowUp, Plus, X } from 'lucide-react';
import { useState } from 'react';
import { type BuildDocument, phraseText } from '../../../core/document';
import {
  beginFeature,
  type Feature,
  FEATURE_LIST,
  type FeatureStep,
  kindOf,
  MOST_FEATURES,
  type PieceSide,
} from '../../../core/steps';
import type { FeatureRow, FeatureSheet, SideSheet } from '../../../core/view';
import { counted, type Display, lengthText, massText } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { FeatureDrawing } from '../../drawing/FeatureDrawing';
import { Choice } from '../../parts/Choice';
import { Window } from '../../parts/Window';
import { ClearingSearch } from './ClearingSearch';
import { FeatureFacts } from './FeatureFacts';
import { FeatureFields } from './FeatureFields';
import { useEdit, useSettle } from './use-edit';
import { Beside } from '../../parts/layout';

/** All that is cut into the pieces of a step: drawn to scale, dragged, or set by numbers. */
export function FeaturesWindow({
  build,
  step,
  sheet,
  first,
  onClose,
}: {
  build: BuildDocument;
  step: FeatureStep;
  sheet: FeatureSheet;
  first: string | undefined;
  onClose: () => void;
}) {
  const edit = useEdit();
  const settle = useSettle();
  const display = useDisplay();
  const { features } = step;
  const [chosen, setChosen] = useState<string | undefined>(first ?? features[0]?.id);
  const own = features.find(({ id }) => id === chosen);
  const [shown, setShown] = useState<PieceSide>(own?.side ?? 'upper');
  const side = sheet.sides.find((each) => each.side === shown) ?? sheet.sides[0];
  const set = (next: readonly Feature[], mark?: string) =>
    edit({ do: 'setStep', step: step.id, change: { features: next } }, mark && `${step.id}.${mark}`);
  const change = (id: string, next: Partial<Feature>, mark?: string) =>
    set(
      features.map((each) => (each.id === id ? ({ ...each, ...next } as Feature) : each)),
      mark && `${id}.${mark}`,
    );
  const choose = (id: string) => {
    setChosen(id);
    const to = features.find((each) => each.id === id);
    if (to) setShown(to.side);
  };
  const add = (kind: string) => {
    const feature = begun(kind, sheet, { shown: side, features, build, system: display.system });
    if (!feature) return;
    set([...features, feature]);
    setChosen(feature.id);
    setShown(feature.side);
  };
  const moveBy = (id: string, by: { u: number; v: number }, settled: boolean) => {
    const each = features.find((other) => other.id === id);
    if (!each) return;
    const to = (along: 'u' | 'v') => {
      const sign = each[along].from === 'high' ? -1 : 1;
      return { ...each[along], by: { mm: Math.round((each[along].by.mm + sign * by[along]) * 1e4) / 1e4 } };
    };
    change(id, { u: to('u'), v: to('v') }, 'moved');
    if (settled) settle();
  };
  const at = features.findIndex(({ id }) => id === chosen);
  const swap = (way: -1 | 1) => {
    const next = [...features];
    [next[at], next[at + way]] = [next[at + way], next[at]];
    set(next);
  };
  return (
    <Window title="What is cut" open onClose={onClose} broad>
      <div className="flex flex-wrap items-end gap-3 pb-3">
        <Choice
          label="Side"
          className="w-44"
          value={shown}
          options={sheet.sides.map(({ side: value, name }) => ({ value, label: name }))}
          onChange={(next) => setShown(next as PieceSide)}
        />
        <Choice
          label="Add"
          className="w-56"
          value=""
          options={[
            { value: '', label: 'Choose what to add' },
            ...FEATURE_LIST.map(({ kind, name }) => ({ value: kind, label: name })),
          ]}
          onChange={(kind) => features.length < MOST_FEATURES && add(kind)}
        />
      </div>
      <Beside>
        <div className="min-w-0">
          <FeatureDrawing
            side={side}
            features={sheet.features.filter((row) => row.side === shown)}
            chosen={chosen}
            display={display}
            stepMm={build.shop.settingStep.mm || 1}
            onChoose={choose}
            onMove={moveBy}
          />
          <p className="text-graphite pt-1 text-[13.5px]">
            {counted(side.joints.u.length + side.joints.v.length, 'joint')} cross this side. Dashed: the
            finished edge. Drag what is cut, or move it with the arrow keys, ten steps at a time with Shift.
          </p>
          {sheet.after && (
            <p className="text-graphite text-[13.5px]">
              Cut, it weighs {massText(sheet.after.kg, display)} and balances{' '}
              {lengthText(sheet.after.along, display)} from the left end,{' '}
              {lengthText(sheet.after.across, display)} from the near edge.
            </p>
          )}
          <ol className="pt-2" aria-label="What is cut, in its order">
            {features.map((feature, i) => (
              <li key={feature.id} className="border-line border-b border-dotted">
                <button
                  type="button"
                  aria-pressed={feature.id === chosen}
                  className={`flex min-h-9 w-full flex-wrap items-baseline gap-x-2 py-1 text-left text-[14.5px] max-desk:min-h-11 ${feature.id === chosen ? 'text-chalk font-semibold' : ''}`}
                  onClick={() => choose(feature.id)}
                >
                  <span>
                    {i + 1}. {sheet.features[i]?.name ?? kindOf(feature).name}
                  </span>
                  <FeatureFacts row={sheet.features.find(({ id }) => id === feature.id)} />
                </button>
              </li>
            ))}
          </ol>
          {features.length === 0 && (
            <p className="text-graphite py-2">Nothing yet. Choose above what to add.</p>
          )}
        </div>
        {own && (
          <section aria-label={kindOf(own).name} key={own.id}>
            <div className="flex items-center gap-2 pb-2">
              <h3 className="mr-auto text-[16px] font-semibold">{kindOf(own).name}</h3>
              <button
                type="button"
                className="action px-2"
                aria-label="Earlier in the order"
                disabled={at === 0}
                onClick={() => swap(-1)}
              >
                <ArrowUp size={15} aria-hidden />
              </button>
              <button
                type="button"
                className="action px-2"
                aria-label="Later in the order"
                disabled={at === features.length - 1}
                onClick={() => swap(1)}
              >
                <ArrowDown size={15} aria-hidden />
              </button>
              <button
                type="button"
                className="action px-2"
                aria-label="The same again"
                disabled={features.length >= MOST_FEATURES}
                onClick={() => {
                  const copy = { ...own, id: freeId(features) };
                  set([...features, copy]);
                  setChosen(copy.id);
                }}
              >
                <Plus size={15} aria-hidden />
              </button>
              <button
                type="button"
                className="action px-2"
                aria-label={`Remove ${kindOf(own).name.toLowerCase()}`}
                onClick={() => {
                  set(features.filter(({ id }) => id !== own.id));
                  setChosen(features.find(({ id }) => id !== own.id)?.id);
                }}
              >
                <X size={15} aria-hidden />
              </button>
            </div>
            <Note row={sheet.features.find(({ id }) => id === own.id)} />
            <FeatureFields
              build={build}
              feature={own}
              others={features.slice(0, at)}
              joints={side.side === own.side ? side.joints : { u: [], v: [] }}
              onChange={(next, mark) => change(own.id, next, mark)}
            />
            <Method row={sheet.features.find(({ id }) => id === own.id)} />
            {kindOf(own).opens && <ClearingSearch build={build} step={step.id} feature={own.id} />}
            <p className="text-graphite pt-2 text-[13px]">
              <strong className="text-ink font-semibold">Caution.</strong> {kindOf(own).caution}
            </p>
          </section>
        )}
      </Beside>
    </Window>
  );
}

const freeId = (features: readonly Feature[]): string => {
  let n = features.length + 1;
  while (features.some(({ id }) => id === `f${n}`)) n += 1;
  return `f${n}`;
};

/** A feature of a kind as it begins: in the middle of the side that is shown, or of the first it can be cut into. */
function begun(
  name: string,
  sheet: FeatureSheet,
  {
    shown,
    features,
    build,
    system,
  }: { shown: SideSheet; features: readonly Feature[]; build: BuildDocument; system: Display['system'] },
): Feature | undefined {
  const kind = FEATURE_LIST.find((each) => each.kind === name);
  const on = kind?.sides && !kind.sides.includes(shown.side) ? kind.sides[0] : shown.side;
  const side = sheet.sides.find((each) => each.side === on);
  return (
    kind &&
    side &&
    beginFeature(
      kind,
      { ...side, trims: { ...side.trims, n: 0 } },
      { id: freeId(features), system, bits: build.shop.bits },
    )
  );
}

/** How it is made, step by step. */
function Method({ row }: { row: FeatureRow | undefined }) {
  const display = useDisplay();
  if (!row?.method.length) return null;
  return (
    <section aria-label="How it is made" className="pt-3">
      <h4 className="label pb-0.5">How it is made</h4>
      <ol className="list-decimal pl-5 text-[14px]">
        {row.method.map((words, i) => (
          <li key={i}>{phraseText(words, display)}</li>
        ))}
      </ol>
    </section>
  );
}

/** A place from the blank’s own edge, where the finished one is another; and why it is not cut. */
function Note({ row }: { row: FeatureRow | undefined }) {
  const display = useDisplay();
  if (row?.refused)
    return (
      <p role="alert" className="text-red pb-2 text-[14px]">
        Not cut: {phraseText(row.refused, display)}
      </p>
    );
  if (!row?.fromBlank || !row.fromFinished) return null;
  const { fromBlank, fromFinished } = row;
  const off = Math.abs(fromBlank.u - fromFinished.u) + Math.abs(fromBlank.v - fromFinished.v) > 1e-6;
  return off ? (
    <p className="text-graphite pb-2 text-[14px]">
      From the edges of the blank, before they are trimmed: {lengthText(fromBlank.u, display)} along,{' '}
      {lengthText(fromBlank.v, display)} across.
    </p>
  ) : null;
}
