import { useState, type ReactNode } from 'react';
import {
  MACHINE_KINDS,
  narrowRipOf,
  type AllowanceName,
  type Machine,
  type Saw,
  type ShopSnapshot,
  type Spread,
} from '../../../core/kit';
import type { Length } from '../../../core/units';
import { problemText, useKitQuery } from '../../app/api';
import { changeKit } from '../../app/kit';
import { useDisplay } from '../../app/display';
import { Choice } from '../../parts/Choice';
import { LengthField } from '../../parts/LengthField';
import { BottleTable } from './BottleTable';
import { ClampTable } from './ClampTable';
import { AirFields, GluingChoice } from './GluingChoice';
import { PracticeChoice } from './PracticeChoice';
import { AddButton, changed, freshId, Heads, NameCell, RemoveCell, without } from './TableParts';

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
const LIMITS: readonly (readonly [
  keyof Pick<Machine, 'maxWidth' | 'maxThickness' | 'minLength' | 'minThickness' | 'bite'>,
  string,
])[] = [
  ['maxWidth', 'Widest'],
  ['maxThickness', 'Thickest'],
  ['minLength', 'Shortest'],
  ['minThickness', 'Thinnest'],
  ['bite', 'Most a pass'],
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
    <main className="mx-auto flex max-w-[1240px] flex-col gap-5 px-5 py-4">
      <div className="flex items-baseline gap-3">
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
      <Machines shop={shop} onChange={change} />
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

const Section = ({ title, children }: { title: string; children: ReactNode }) => (
  <section aria-label={title} className="sheet p-4">
    <h2 className="pb-2 text-[17px] font-semibold">{title}</h2>
    {children}
  </section>
);

function Size({
  label,
  value,
  onChange,
  hide = true,
}: {
  label: string;
  value: Length;
  onChange: (value: Length) => void;
  hide?: boolean;
}) {
  const display = useDisplay();
  return (
    <LengthField
      label={label}
      hideLabel={hide}
      value={value}
      display={display}
      rule={{ minMm: 0, maxMm: 20_000 }}
      onChange={onChange}
      className="w-[92px]"
    />
  );
}

function SpreadFields({
  name,
  spread,
  onChange,
}: {
  name: string;
  spread: Spread;
  onChange: (spread: Spread) => void;
}) {
  return (
    <>
      <td className="pr-2">
        <Size
          label={`${name}, off by, 9 in 10`}
          value={spread.likely}
          onChange={(likely) => onChange({ ...spread, likely })}
        />
      </td>
      <td className="pr-2">
        <Size
          label={`${name}, off by at worst`}
          value={spread.worst}
          onChange={(worst) => onChange({ ...spread, worst })}
        />
      </td>
    </>
  );
}

const SETTING_OFF = (
  <>
    Setting off by,
    <br />9 in 10
  </>
);

function Saws({ shop, onChange }: Part) {
  const set = (saws: Saw[]) => onChange({ ...shop, saws });
  const one = (i: number, part: Partial<Saw>) => set(changed(shop.saws, i, part));
  return (
    <Section title="Saws">
      <table>
        <Heads names={['Saw', ...SAW_SIZES.map(([, name]) => name), SETTING_OFF, 'at worst']} />
        <tbody>
          {shop.saws.map((saw, i) => (
            <tr key={saw.id} className="align-top">
              <NameCell
                label={`Name of saw ${i + 1}`}
                width="w-64"
                value={saw.name}
                onChange={(name) => one(i, { name })}
              />
              {SAW_SIZES.map(([key, name]) => (
                <td key={key} className="pr-2">
                  <Size
                    label={`${saw.name}, ${name.toLowerCase()}`}
                    value={saw[key] ?? NONE}
                    onChange={(value) => one(i, { [key]: value })}
                  />
                </td>
              ))}
              <SpreadFields
                name={saw.name}
                spread={saw.setting}
                onChange={(setting) => one(i, { setting })}
              />
              <RemoveCell
                name={saw.name}
                last={shop.saws.length === 1}
                onRemove={() => set(without(shop.saws, i))}
              />
            </tr>
          ))}
        </tbody>
      </table>
      <AddButton
        onAdd={() =>
          set([...shop.saws, { ...shop.saws[0], id: freshId('saw', shop.saws), name: 'Another saw' }])
        }
      >
        Add a saw
      </AddButton>
    </Section>
  );
}

function Machines({ shop, onChange }: Part) {
  const set = (machines: Machine[]) => onChange({ ...shop, machines });
  const one = (i: number, part: Partial<Machine>) => set(changed(shop.machines, i, part));
  return (
    <Section title="Machines that flatten and joint">
      <table>
        <Heads names={['Machine', 'Kind', ...LIMITS.map(([, name]) => name), SETTING_OFF, 'at worst']} />
        <tbody>
          {shop.machines.map((machine, i) => (
            <tr key={machine.id} className="align-top">
              <NameCell
                label={`Name of machine ${i + 1}`}
                width="w-36"
                value={machine.name}
                onChange={(name) => one(i, { name })}
              />
              <td className="pr-2">
                <Choice
                  label={`Kind of ${machine.name}`}
                  hideLabel
                  className="w-36"
                  value={machine.kind}
                  options={MACHINE_KINDS.map((kind) => ({ value: kind, label: kind }))}
                  onChange={(kind) => one(i, { kind: kind as Machine['kind'] })}
                />
              </td>
              {LIMITS.map(([key, name]) => (
                <td key={key} className="pr-2">
                  <Size
                    label={`${machine.name}, ${name.toLowerCase()}`}
                    value={machine[key]}
                    onChange={(value) => one(i, { [key]: value })}
                  />
                </td>
              ))}
              <SpreadFields
                name={machine.name}
                spread={machine.setting}
                onChange={(setting) => one(i, { setting })}
              />
              <RemoveCell
                name={machine.name}
                last={shop.machines.length === 1}
                onRemove={() => set(without(shop.machines, i))}
              />
            </tr>
          ))}
        </tbody>
      </table>
      <AddButton
        onAdd={() =>
          set([
            ...shop.machines,
            { ...shop.machines[0], id: freshId('machine', shop.machines), name: 'Another machine' },
          ])
        }
      >
        Add a machine
      </AddButton>
    </Section>
  );
}

function AllowanceList({ shop, onChange }: Part) {
  return (
    <Section title="Allowances and rule">
      <div className="grid grid-cols-3 gap-x-8 gap-y-2">
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
