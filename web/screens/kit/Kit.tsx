import { freshId } from '../../app/ids';
import { useState } from 'react';
import { Link } from 'react-router';
import {
  ALLOWANCE_NAMES,
  ALLOWANCES,
  narrowRipOf,
  paperOf,
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
import { CurrencyField } from '../../parts/CurrencyField';
import { NumberField } from '../../parts/NumberField';
import { PaperChoice } from '../../parts/PaperChoice';
import { SettledInput } from '../../parts/SettledInput';
import { BitList } from './BitList';
import { BottleTable } from './BottleTable';
import { ClampTable } from './ClampTable';
import { AirFields, GluingChoice } from './GluingChoice';
import { AddKind, Section, Size, spreadFields, Under } from './KitFields';
import { MachineList } from './MachineList';
import { PracticeChoice } from './PracticeChoice';
import { LadderList } from './LadderList';
import { PeopleList } from './PeopleList';
import { SupplyList } from './SupplyList';
import { changed, LabelNumber, RemoveButton, without } from './TableParts';
import { Columns, Screen } from '../../parts/layout';

const SAW_SIZES: readonly (readonly [
  keyof Pick<Saw, 'kerf' | 'depth' | 'freeDepth' | 'crosscut' | 'rip'>,
  string,
])[] = [
  ['kerf', 'Kerf'],
  ['depth', 'Deepest cut'],
  ['freeDepth', 'Deepest, without its guide'],
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
    <Screen className="flex flex-col gap-5">
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
      <ShopFields shop={shop} onChange={change} />
      <Saws shop={shop} onChange={change} />
      <MachineList shop={shop} onChange={change} />
      <BitList shop={shop} onChange={change} />
      <SupplyList shop={shop} onChange={change} />
      <LadderList shop={shop} onChange={change} />
      <AllowanceList shop={shop} onChange={change} />
      <AirFields shop={shop} onChange={change} />
      <ClampTable shop={shop} onChange={change} />
      <BottleTable shop={shop} onChange={change} />
      <GluingChoice shop={shop} onChange={change} />
      <PeopleList shop={shop} onChange={change} />
      <p className="text-[14px]">
        <Link className="press text-chalk underline" to="/gauges">
          Simulated gauges
        </Link>
        , to try out how a caliper on the network reads into the bench.
      </p>
      <PracticeChoice shop={shop} onChange={change} />
    </Screen>
  );
}

interface Part {
  shop: ShopSnapshot;
  onChange: (shop: ShopSnapshot) => void;
}

/** What the shop is called in the head of every screen, what it counts in, and what stands on its paper. */
function ShopFields({ shop, onChange }: Part) {
  const { currency: _c, address: _a, ...rest } = shop;
  return (
    <Section title="The shop">
      <div className="flex flex-wrap items-start gap-x-5 gap-y-3">
        <Line
          label="Name of the shop"
          most={80}
          value={shop.name}
          needed
          onChange={(name) => onChange({ ...shop, name })}
        />
        <Line
          label="Address line, on what is printed"
          most={200}
          value={shop.address ?? ''}
          onChange={(address) =>
            onChange({
              ...rest,
              ...(address ? { address } : {}),
              ...(shop.currency ? { currency: shop.currency } : {}),
            })
          }
        />
        <CurrencyField
          value={shop.currency}
          onChange={(currency) =>
            onChange({
              ...rest,
              ...(currency ? { currency } : {}),
              ...(shop.address ? { address: shop.address } : {}),
            })
          }
        />
        <PaperChoice value={paperOf(shop)} onChange={(paper) => onChange({ ...shop, paper })} />
      </div>
    </Section>
  );
}

/** A line of text under its label; one that is needed comes back as it was where it was emptied. */
const Line = ({
  label,
  most,
  value,
  needed = false,
  onChange,
}: {
  label: string;
  most: number;
  value: string;
  needed?: boolean;
  onChange: (value: string) => void;
}) => (
  <label className="flex w-[320px] max-w-full flex-col">
    <span className="label pb-0.5">{label}</span>
    <SettledInput
      className="field font-sans! font-medium!"
      maxLength={most}
      value={value}
      read={(typed) => typed.trim() || (needed ? undefined : '')}
      onChange={onChange}
    />
  </label>
);

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
            {SAW_SIZES.filter(
              ([key]) =>
                key !== 'freeDepth' || saw.freeDepth !== undefined || !saw.kind || saw.kind === 'track saw',
            ).map(([key, name]) => (
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
            <Under name="Off square by, °" title="How far its cut may be off a right angle; 0: nobody said">
              <span className="w-[88px]">
                <NumberField
                  label={`${saw.name}, off square by, degrees`}
                  hideLabel
                  value={saw.offSquare ?? 0}
                  least={0}
                  most={5}
                  onChange={(offSquare) => one(i, { offSquare: offSquare || undefined })}
                />
              </span>
            </Under>
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
        first={
          shop.saws.length === 0
            ? {
                says: 'No saw: Junta cannot plan a cut without a kerf. Most shops begin with a table saw.',
                kind: 'table saw',
                button: 'Add a table saw',
              }
            : undefined
        }
        onAdd={(kind) => set([...shop.saws, usualSaw(kind as SawKind, freshId('saw', shop.saws))])}
      />
    </Section>
  );
}

function AllowanceList({ shop, onChange }: Part) {
  return (
    <Section title="Allowances and rule">
      <Columns least={18} most={3} gap={2} className="gap-y-2">
        {ALLOWANCE_NAMES.map((name) => (
          <div key={name} className="flex items-start justify-between gap-3">
            <span className="text-[14px]">
              {ALLOWANCES[name].title}
              <span className="text-graphite block text-[12.5px]">{ALLOWANCES[name].about}</span>
            </span>
            <Size
              label={ALLOWANCES[name].title}
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
          <LabelNumber
            label="Wood in this shop settles at, %"
            value={shop.woodMoisturePct}
            least={0}
            most={30}
            needed
            width="w-24"
            onChange={(pct) => pct !== undefined && onChange({ ...shop, woodMoisturePct: pct })}
          />
        </label>
      </Columns>
    </Section>
  );
}
