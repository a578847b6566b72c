import { useState } from 'react';
import {
  type AllowanceName,
  narrowRipOf,
  type Saw,
  SAW_KINDS,
  type SawKind,
  type ShopSnapshot,
  usualSaw,
} from '../../../core/kit';
import type { Length } from '../../../core/units';
import { problemText, useKitQuery } from '../../app/api';
import { changeKit } from '../../app/kit';
import { Choice } from '../../parts/Choice';
import { BitList } from './BitList';
import { BottleTable } from './BottleTable';
import { ClampTable } from './ClampTable';
import { AirFields, GluingChoice } from './GluingChoice';
import { AddKind, Section, Size, spreadFields, Under } from './KitFields';
import { MachineList } from './MachineList';
import { PracticeChoice } from './PracticeChoice';
import { SupplyList } from './SupplyList';
import { changed, freshId, RemoveButton, without } from './TableParts';

const ALLOWANCES: readonly (readonly [AllowanceName, string, string])[] = [
  ['millFace', 'Milling, each face', 'rough strip to clean strip'],
  ['millEdge', 'Milling, each edge', 'saw marks off before gluing'],
  ['flattenPanel', 'Flattening a panel', 'both faces together'],
  ['flattenBlock', 'Flattening a block', 'both faces together, end grain'],
  ['trimEnd', 'Trimming, each end', 'kerf included'],
  ['trimEdge', 'Trimming, each edge', 'kerf included'],
  ['jointEdge', 'Jointing, each edge', 'before sections are joined'],
  ['sliceHead', 'Cut off before the first slice', 'squares the end'],
  ['sliceTail', 'Left in hand after the last slice', 'never slice to the end'],
];
const SAW_SIZES: readonly (readonly [keyof Pick<Saw, 'kerf' | 'depth' | 'crosscut' | 'rip'>, string])[] = [
  ['kerf', 'Kerf'],
  ['depth', 'Deepest cut'],
  ['crosscut', 'Widest crosscut'],
  ['rip', 'Widest rip'],
];
const NONE: Length = { mm: 0 };
/** Saws, machines and allowances. Every change is stored; jobs keep the kit they were planned with until asked. */
export function Kit() {
  const { data, error } = useKitQuery();
  const [refused, setRefused] = useState<string>();
  if (error !== undefined && !data)
    return (
      <p role="alert" className="text-red p-8">
        {problemText(error)}
      </p>
    );
  if (!data) return <p className="text-graphite p-8">Reading the kit …</p>;
  const { shop } = data;
  const change = (next: ShopSnapshot) => changeKit(() => next, setRefused);
  return (
    <main className="mx-auto flex max-w-[1240px] flex-col gap-5 px-5 py-4 max-desk:px-3">
      <div className="flex flex-wrap items-baseline gap-x-3">
        <h1 className="text-[20px] font-semibold">Kit</h1>
        <span className="text-graphite text-[14px]">
          Limits are common practice; each machine’s own manual comes first. A limit of 0 means none.
        </span>
        {refused !== undefined && (
          <span role="alert" className="text-red text-[14px]">
            {refused}
          </span>
        )}
      </div>
      {data.damaged && (
        <p role="alert" className="text-red text-[14px]">
          Left out, since it was damaged in the database: {data.damaged.join(', ')}. Enter it again here, or
          bring back an older copy of the data.
        </p>
      )}
      <Saws shop={shop} onChange={change} />
      <MachineList shop={shop} onChange={change} />
      <BitList shop={shop} onChange={change} />
      <SupplyList shop={shop} onChange={change} />
      <AllowanceList shop={shop} onChange={change} />
      <AirFields shop={shop} onChange={change} />
      <ClampTable shop={shop} onChange={change} />
      <BottleTable shop={shop} onChange={change} />
      <GluingChoice shop={shop} onChange={change} />
      <PracticeChoice shop={shop} onChange={change} />
    </main>
  );
}

interface Part {
  shop: ShopSnapshot;
  onChange: (shop: ShopSnapshot) => void;
}

const SAWS = Object.entries(SAW_KINDS).map(([value, { name }]) => ({ value, label: name }));

function Saws({ shop, onChange }: Part) {
  const set = (saws: Saw[]) => onChange({ ...shop, saws });
  const one = (i: number, part: Partial<Saw>) => set(changed(shop.saws, i, part));
  return (
    <Section title="Saws">
      <ul className="flex flex-col gap-2">
        {shop.saws.map((saw, i) => (
          <li key={saw.id} className="flex flex-wrap items-end gap-x-2 gap-y-1.5">
            <Under name="Saw">
              <input
                aria-label={`Name of saw ${i + 1}`}
                className="field w-48 font-sans!"
                value={saw.name}
                maxLength={60}
                onChange={(event) => event.target.value && one(i, { name: event.target.value })}
              />
            </Under>
            <Under name="Kind">
              <Choice
                label={`Kind of ${saw.name}`}
                hideLabel
                className="w-36"
                value={saw.kind ?? ''}
                options={SAWS}
                onChange={(kind) => one(i, { kind: kind as SawKind })}
              />
            </Under>
            {SAW_SIZES.map(([key, name]) => (
              <Under key={key} name={name}>
                <Size
                  label={`${saw.name}, ${name.toLowerCase()}`}
                  value={saw[key] ?? NONE}
                  onChange={(value) => one(i, { [key]: value })}
                />
              </Under>
            ))}
            {spreadFields(saw.setting, (setting) => one(i, { setting })).map(
              ({ key, name, label, value, set: change }) => (
                <Under key={key} name={name}>
                  <Size label={`${saw.name}, ${label}`} value={value} onChange={change} />
                </Under>
              ),
            )}
            <RemoveButton
              name={saw.name}
              last={shop.saws.length === 1}
              onRemove={() => set(without(shop.saws, i))}
            />
          </li>
        ))}
      </ul>
      <AddKind
        label="Add a saw"
        kinds={SAWS}
        onAdd={(kind) => set([...shop.saws, usualSaw(kind as SawKind, freshId('saw', shop.saws))])}
      />
    </Section>
  );
}

function AllowanceList({ shop, onChange }: Part) {
  return (
    <Section title="Allowances and rule">
      <div className="grid grid-cols-3 gap-x-8 gap-y-2 max-lg:grid-cols-2 max-desk:grid-cols-1">
        {ALLOWANCES.map(([name, title, why]) => (
          <div key={name} className="flex items-start justify-between gap-3">
            <span className="text-[14px]">
              {title}
              <span className="text-graphite block text-[12.5px]">{why}</span>
            </span>
            <Size
              label={title}
              value={shop.allowances[name]}
              onChange={(amount) => onChange({ ...shop, allowances: { ...shop.allowances, [name]: amount } })}
            />
          </div>
        ))}
        <div className="flex items-start justify-between gap-3">
          <span className="text-[14px]">
            Settings are rounded to
            <span className="text-graphite block text-[12.5px]">finest the shop dials or measures</span>
          </span>
          <Size
            label="Settings are rounded to"
            value={shop.settingStep}
            onChange={(settingStep) => onChange({ ...shop, settingStep })}
          />
        </div>
        <div className="flex items-start justify-between gap-3">
          <span className="text-[14px]">
            A step between strips counts from
            <span className="text-graphite block text-[12.5px]">what a thumb can feel</span>
          </span>
          <Size
            label="A step between strips counts from"
            value={shop.noticeableStep}
            onChange={(noticeableStep) => onChange({ ...shop, noticeableStep })}
          />
        </div>
        <div className="flex items-start justify-between gap-3">
          <span className="text-[14px]">
            Strips are narrow below
            <span className="text-graphite block text-[12.5px]">their rip carries its caution</span>
          </span>
          <Size
            label="Strips are narrow below"
            value={narrowRipOf(shop)}
            onChange={(narrowRip) => onChange({ ...shop, narrowRip })}
          />
        </div>
        <label className="flex items-start justify-between gap-3">
          <span className="text-[14px]">
            Wood in this shop settles at, %
            <span className="text-graphite block text-[12.5px]">moisture a dry board comes to</span>
          </span>
          <input
            aria-label="Wood in this shop settles at, %"
            className="field w-24"
            inputMode="decimal"
            defaultValue={shop.woodMoisturePct}
            onBlur={(event) => {
              const pct = Number(event.target.value.replace(',', '.'));
              if (event.target.value.trim() && pct >= 0 && pct <= 30)
                onChange({ ...shop, woodMoisturePct: pct });
              else event.target.value = String(shop.woodMoisturePct);
            }}
          />
        </label>
      </div>
    </Section>
  );
}
