import { type ReactNode, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import {
  ADHESIVE_CLASSES,
  type ClampSet,
  LIMITS,
  type Machine,
  MACHINE_KIND_NAMES,
  type Saw,
  type SetUp,
  shopFrom,
  SKIPPED,
  type Usual,
  usualClamps,
  usualMachines,
  usualSaws,
} from '../../../core/kit';
import { counted, type LengthSystem } from '../../../core/units';
import { problemText, useNewShopMutation } from '../../app/api';
import { ShownIn } from '../../app/display';
import { enterShop } from '../../app/shop-choice';
import { useWriteOnce } from '../../app/write-once';
import { Choice } from '../../parts/Choice';
import { CountField } from '../../parts/CountField';
import { CurrencyField } from '../../parts/CurrencyField';
import { PaperChoice } from '../../parts/PaperChoice';
import { Screen } from '../../parts/layout';
import { Tick } from '../../parts/Tick';
import { Toggle } from '../../parts/Toggle';
import { HaveList, Typical, UsualSize } from './HaveList';
import { forgetTold, type Told, useTold } from './told';

interface PageProps {
  told: Told;
  system: LengthSystem;
  tell: (change: Told) => void;
}
interface Page {
  id: string;
  title: string;
  says: string;
  fields: (props: PageProps) => ReactNode;
  /** What is told where the page is left as it stands, and nothing was touched. */
  asItStands?: (props: PageProps) => Told;
  /** What skipping it takes back. */
  skip?: Told;
}

const common = <T,>(usual: readonly Usual<T>[]): T[] =>
  usual.flatMap(({ item, common: is }) => (is ? [item] : []));

const SAW_SIZES: readonly (readonly ['kerf' | 'depth' | 'crosscut' | 'rip', string])[] = [
  ['kerf', 'Kerf'],
  ['depth', 'Deepest cut'],
  ['crosscut', 'Widest crosscut'],
  ['rip', 'Widest rip'],
];
const MACHINE_SIZES = ['maxWidth', 'maxThickness', 'minLength'] as const;
const NONE = { mm: 0 };

/** The pages in their order; every one can be skipped. */
const PAGES: readonly Page[] = [
  {
    id: 'shop',
    title: 'Your shop',
    says: 'What it is called, and how you measure. All of it can be changed later in the Kit.',
    fields: ShopFields,
  },
  {
    id: 'saws',
    title: 'Saws',
    says: 'Tick the saws you have and correct their sizes. Values are common practice; the saw’s own manual comes first.',
    fields: ({ told, system, tell }) => {
      const usual = usualSaws(system);
      return (
        <HaveList<Saw>
          label="Saws"
          usual={usual}
          have={told.saws ?? common(usual)}
          onChange={(saws) => tell({ saws })}
          fields={(saw, typical, change) =>
            SAW_SIZES.filter(([key]) => typical[key] !== undefined).map(([key, name]) => (
              <UsualSize
                key={key}
                name={name}
                label={`${saw.name}, ${name.toLowerCase()}`}
                value={saw[key] ?? NONE}
                usual={typical[key] ?? NONE}
                onChange={(value) => change({ [key]: value })}
              />
            ))
          }
        />
      );
    },
    asItStands: ({ system }) => ({ saws: common(usualSaws(system)) }),
    skip: { saws: undefined },
  },
  {
    id: 'machines',
    title: 'Machines',
    says: 'Tick the machines you have and correct their limits. A limit of 0 means none; the machine’s own manual comes first.',
    fields: ({ told, system, tell }) => {
      const usual = usualMachines(system, MACHINE_KIND_NAMES);
      return (
        <HaveList<Machine>
          label="Machines"
          usual={usual}
          have={told.machines ?? common(usual)}
          onChange={(machines) => tell({ machines })}
          fields={(machine, typical, change) =>
            MACHINE_SIZES.filter((key) => typical[key].mm > 0).map((key) => (
              <UsualSize
                key={key}
                name={LIMITS[key].name}
                label={`${machine.name}, ${LIMITS[key].name.toLowerCase()}`}
                value={machine[key]}
                usual={typical[key]}
                onChange={(value) => change({ [key]: value })}
              />
            ))
          }
        />
      );
    },
    asItStands: ({ system }) => ({ machines: common(usualMachines(system, MACHINE_KIND_NAMES)) }),
    skip: { machines: undefined },
  },
  {
    id: 'clamps',
    title: 'Clamps',
    says: 'Tick the clamps you have: how many, and how wide they open. How hard they press stands in the Kit.',
    fields: ({ told, system, tell }) => {
      const usual = usualClamps(system);
      return (
        <HaveList<ClampSet>
          label="Clamps"
          usual={usual}
          have={told.clamps ?? common(usual)}
          onChange={(clamps) => tell({ clamps })}
          fields={(set, typical, change) => (
            <>
              <span className="flex w-24 flex-col">
                <span aria-hidden className="label leading-tight">
                  How many
                </span>
                <CountField
                  label={`${set.name}, how many`}
                  hideLabel
                  value={set.count}
                  least={0}
                  most={500}
                  onChange={(count) => change({ count })}
                />
                <Typical is={set.count === typical.count} />
              </span>
              <UsualSize
                name="Opens to"
                label={`${set.name}, opens to`}
                value={set.opening}
                usual={typical.opening}
                onChange={(opening) => change({ opening })}
              />
            </>
          )}
        />
      );
    },
    asItStands: ({ system }) => ({ clamps: common(usualClamps(system)) }),
    skip: { clamps: undefined },
  },
  {
    id: 'glue',
    title: 'Glue',
    says: 'Which two bottles you reach for. Times and temperatures follow the kind of glue until you enter what the label says.',
    fields: GlueFields,
    asItStands: () => ({ glues: USUAL_GLUES }),
    skip: { glues: undefined },
  },
];

const CLASSES = [
  { value: '', label: 'none' },
  ...ADHESIVE_CLASSES.map(({ id, name }) => ({ value: id, label: name })),
];
const className = (id: string): string => ADHESIVE_CLASSES.find((each) => each.id === id)?.name ?? id;
const USUAL_GLUES: NonNullable<SetUp['glues']> = ['pva_crosslink_d3', 'pva_yellow'].map((id) => ({
  class: id,
  name: className(id),
}));

function GlueFields({ told, tell }: PageProps) {
  const glues = told.glues ?? USUAL_GLUES;
  const put = (at: number, next: NonNullable<SetUp['glues']>[number] | undefined) =>
    tell({ glues: [0, 1].flatMap((i) => (i === at ? (next ?? []) : (glues[i] ?? []))) });
  return (
    <div className="flex max-w-xl flex-col gap-3">
      {[0, 1].map((i) => (
        <span key={i} className="flex flex-wrap items-end gap-3">
          <Choice
            label={i === 0 ? 'The bottle you use most' : 'A second bottle'}
            className="w-80 max-w-full"
            value={glues[i]?.class ?? ''}
            options={CLASSES}
            onChange={(id) => put(i, id ? { class: id, name: className(id) } : undefined)}
          />
          {glues[i] && (
            <Tick
              label="its label allows contact with food"
              checked={glues[i].foodOk ?? false}
              onChange={(foodOk) => put(i, { ...glues[i], foodOk })}
            />
          )}
        </span>
      ))}
    </div>
  );
}

function ShopFields({ told, tell }: PageProps) {
  return (
    <div className="flex max-w-xl flex-col gap-4">
      <label className="flex flex-col">
        <span className="label pb-0.5">Name of the shop</span>
        <input
          className="field font-sans!"
          maxLength={80}
          value={told.name ?? ''}
          placeholder="Our shop"
          onChange={(event) => tell({ name: event.target.value })}
        />
      </label>
      <Toggle
        label="You measure in"
        value={told.system ?? ''}
        options={[
          { value: 'inch', label: 'inches' },
          { value: 'mm', label: 'millimetres' },
        ]}
        onChange={(system) =>
          // Sizes entered in the other system are begun anew: usual values are round in each.
          tell({ system: system as LengthSystem, saws: undefined, machines: undefined, clamps: undefined })
        }
      />
      <CurrencyField value={told.currency} onChange={(currency) => tell({ currency })} />
      <PaperChoice
        value={told.paper ?? (told.system === 'mm' ? 'a4' : told.system === 'inch' ? 'letter' : undefined)}
        onChange={(paper) => tell({ paper })}
      />
      <label className="flex flex-col">
        <span className="label pb-0.5">Address line, on what is printed (if you want one)</span>
        <input
          className="field font-sans!"
          maxLength={200}
          value={told.address ?? ''}
          onChange={(event) => tell({ address: event.target.value || undefined })}
        />
      </label>
    </div>
  );
}

const LAST = 'ready';

/** A shop of one's own, page by page; nothing is stored before the last press. */
export function SetUpShop() {
  const [told, tell] = useTold();
  const [params, setParams] = useSearchParams();
  const [newShop, { isLoading }] = useNewShopMutation();
  const [refused, setRefused] = useState<string>();
  const write = useWriteOnce();
  const at = params.get('page') ?? PAGES[0].id;
  const index =
    at === LAST
      ? PAGES.length
      : Math.max(
          0,
          PAGES.findIndex(({ id }) => id === at),
        );
  const page = PAGES[index];
  const system = told.system ?? 'inch';
  const shop = useMemo(
    () => shopFrom({ ...told, name: told.name?.trim() || 'Our shop', system } as SetUp),
    [told, system],
  );
  const go = (to: number) => {
    setRefused(undefined);
    setParams({ page: PAGES[to]?.id ?? LAST });
  };
  const lacks =
    index === 0 && told.system === undefined ? 'Say first whether you measure in inches or millimetres.' : '';
  const next = () => {
    if (lacks) return setRefused(lacks);
    const standing = page?.asItStands?.({ told, system, tell });
    if (standing) {
      // What was looked at and left is told as it stands: only a skipped page stays unsaid.
      const untold = Object.entries(standing).filter(([key]) => told[key as keyof Told] === undefined);
      if (untold.length > 0) tell(Object.fromEntries(untold));
    }
    go(index + 1);
  };
  const finish = async () => {
    const made = await newShop({ shop, write: write.of(shop) });
    if (!made.data) return setRefused(problemText(made.error));
    forgetTold();
    enterShop(made.data.id);
  };
  return (
    <ShownIn value={shop.display}>
      <Screen className="max-w-[980px]!">
        <h1 className="text-[20px] font-semibold">Set up your shop</h1>
        <ol className="flex flex-wrap gap-x-4 gap-y-1 py-2 text-[14px]">
          {[...PAGES, { id: LAST, title: 'Ready' }].map(({ id, title }, i) => (
            <li key={id} aria-current={i === index ? 'step' : undefined}>
              <button
                type="button"
                disabled={told.system === undefined && i > 0}
                className={`press ${i === index ? 'text-chalk font-semibold' : i < index ? 'font-medium' : 'text-graphite'}`}
                onClick={() => go(i)}
              >
                {i + 1}. {title}
              </button>
            </li>
          ))}
        </ol>
        {refused && (
          <p role="alert" className="text-red pb-2">
            {refused}
          </p>
        )}
        {page ? (
          <section aria-label={page.title} className="sheet p-5 max-desk:p-3">
            <h2 className="text-[18px] font-semibold">{page.title}</h2>
            <p className="text-graphite pb-3">{page.says}</p>
            <page.fields told={told} system={system} tell={tell} />
            <span className="flex flex-wrap gap-2 pt-4">
              {index > 0 && (
                <button type="button" className="action" onClick={() => go(index - 1)}>
                  Back
                </button>
              )}
              <button type="button" className="action action-main" onClick={next}>
                Next
              </button>
              {page.skip && (
                <button
                  type="button"
                  className="action"
                  onClick={() => {
                    tell(page.skip ?? {});
                    go(index + 1);
                  }}
                >
                  Skip
                </button>
              )}
            </span>
          </section>
        ) : (
          <section aria-label="Ready" className="sheet p-5 max-desk:p-3">
            <h2 className="text-[18px] font-semibold">{shop.name}</h2>
            <ul className="flex flex-col gap-1 py-3">
              <li>
                Measures in {system === 'mm' ? 'millimetres' : 'inches'}
                {told.currency && `; prices in ${told.currency}`}.
              </li>
              <li>{told.saws ? `${counted(told.saws.length, 'saw')}.` : SKIPPED.saws}</li>
              <li>{told.machines ? `${counted(told.machines.length, 'machine')}.` : SKIPPED.machines}</li>
              <li>
                {told.clamps
                  ? `${counted(
                      told.clamps.reduce((n, { count }) => n + count, 0),
                      'clamp',
                    )}.`
                  : SKIPPED.clamps}
              </li>
              <li>{told.glues ? `${counted(told.glues.length, 'bottle')} of glue.` : SKIPPED.glues}</li>
            </ul>
            <span className="flex flex-wrap gap-2">
              <button type="button" className="action" onClick={() => go(PAGES.length - 1)}>
                Back
              </button>
              <button
                type="button"
                className="action action-main"
                disabled={isLoading}
                onClick={() => void finish()}
              >
                Open this shop
              </button>
            </span>
          </section>
        )}
      </Screen>
    </ShownIn>
  );
}
