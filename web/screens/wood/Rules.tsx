import type { BreakdownSettings, BuildDocument } from '../../../core/document';
import { STOCK_KIND_NAMES, STOCK_KINDS } from '../../../core/kit';
import { type Length, lengthText } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { Choice } from '../../parts/Choice';
import { CountField } from '../../parts/CountField';
import { LengthField } from '../../parts/LengthField';
import { LengthsField } from '../../parts/LengthsField';
import { Tick } from '../../parts/Tick';

const LENGTHS = [
  ['extraLength', 'Extra length'],
  ['extraWidth', 'Extra width'],
  ['endTrim', 'Off each end'],
  ['edgeTrim', 'Off each edge'],
  ['leastOffcutLength', 'Keep offcuts at least this long'],
  ['leastOffcutWidth', 'Keep offcuts at least this wide'],
] as const;

const USUAL = 'usual';
const NONE: readonly Length[] = [];

/** How the boards are cut: saws, allowances, what must stay in hand, and which offcut is worth keeping. */
export function Rules({
  build,
  settings,
  onChange,
}: {
  build: BuildDocument;
  settings: BreakdownSettings;
  onChange: (settings: BreakdownSettings) => void;
}) {
  const display = useDisplay();
  const saws = build.shop.saws.map(({ id, name }) => ({ value: id, label: name }));
  const saw = (name: 'crosscutSaw' | 'ripSaw' | 'resawSaw', label: string) => (
    <Choice
      label={label}
      value={settings[name]}
      options={saws}
      onChange={(id) => onChange({ ...settings, [name]: id })}
    />
  );
  const noKerf = (['crosscutSaw', 'ripSaw'] as const).some(
    (name) => (build.shop.saws.find(({ id }) => id === settings[name])?.kerf.mm ?? 0) === 0,
  );
  return (
    <section aria-label="How it is cut" className="border-line flex flex-col gap-1.5 border-t pt-2">
      <h2 className="label">How it is cut; takes effect at the next breakdown</h2>
      <div className="grid grid-cols-2 gap-x-3 gap-y-1.5">
        {saw('crosscutSaw', 'Crosscut with')}
        {saw('ripSaw', 'Rip with')}
        {saw('resawSaw', 'Resaw with')}
        <span className="self-end">
          <Tick
            label="resaw thick boards"
            checked={settings.resaw}
            onChange={(resaw) => onChange({ ...settings, resaw })}
          />
        </span>
      </div>
      <div className="grid grid-cols-2 items-end gap-x-3">
        <LengthField
          label="Left at the fence"
          value={settings.remnant}
          display={display}
          rule={{ minMm: 0 }}
          onChange={(remnant) => onChange({ ...settings, remnant })}
        />
        <p className="text-graphite col-span-2 text-[13px]">
          Wood of each board that a hand must keep at the saw and that gives no strip. It decides how many
          boards are needed.
        </p>
      </div>
      <div className="grid grid-cols-2 gap-x-3 gap-y-1.5">
        {LENGTHS.map(([name, label]) => (
          <LengthField
            key={name}
            label={label}
            value={settings[name]}
            display={display}
            rule={{ minMm: 0 }}
            onChange={(length) => onChange({ ...settings, [name]: length })}
          />
        ))}
        <CountField
          label="Value of kept offcuts, %"
          value={settings.offcutWorthPct}
          least={0}
          most={100}
          onChange={(offcutWorthPct) => onChange({ ...settings, offcutWorthPct })}
        />
      </div>
      <div className="grid grid-cols-2 items-start gap-x-3 gap-y-1.5">
        <Choice
          label="What is short is bought as"
          value={settings.buyAs ?? USUAL}
          options={[
            { value: USUAL, label: 'its wood usually is' },
            ...STOCK_KIND_NAMES.map((value) => ({ value, label: STOCK_KINDS[value].name })),
          ]}
          onChange={(kind) => {
            const buyAs = STOCK_KIND_NAMES.find((name) => name === kind);
            const { buyAs: _, ...others } = settings;
            onChange(buyAs ? { ...others, buyAs } : others);
          }}
        />
        <LengthsField
          label="Lengths on sale"
          value={settings.buyLengths ?? NONE}
          display={display}
          rule={{ minMm: 100, maxMm: 10_000 }}
          says={(lengths) => `only ${lengths.map(({ mm }) => lengthText(mm, display)).join(', ')}`}
          empty="those that are usual"
          onChange={(lengths) => {
            const { buyLengths: _, ...others } = settings;
            onChange(lengths.length > 0 ? { ...others, buyLengths: lengths } : others);
          }}
        />
      </div>
      {noKerf && (
        <p className="text-red text-[13.5px]">
          A saw here has a kerf of zero: every cut would come for nothing. Set it in the Kit and take the kit
          over.
        </p>
      )}
    </section>
  );
}
