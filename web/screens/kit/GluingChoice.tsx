import { PRESSURES_MPA } from '../../../core/glueup';
import { dialled, fromMinor, pressureText, toMinor } from '../../../core/units';
import {
  AID_KINDS,
  type AidKind,
  APPLICATORS,
  CLAMP_SCHOOLS,
  type Climate,
  climateOf,
  DEFAULT_GLUE_PRACTICE,
  equilibriumMoisture,
  type GluePractice,
  gluingOf,
  isClimateKnown,
  type Machine,
  paidMachineOf,
  type ShopSnapshot,
  usualMachine,
  paceBasis,
} from '../../../core/kit';
import { SPECIES } from '../../../core/wood/species';
import { useDisplay } from '../../app/display';
import { Choice } from '../../parts/Choice';
import { Toggle } from '../../parts/Toggle';
import { LengthField } from '../../parts/LengthField';
import { NumberField } from '../../parts/NumberField';
import { AirFromGauge } from './AirFromGauge';
import { CrewChoice, Item } from './CrewChoice';
import { freshId } from '../../app/ids';
import { Columns } from '../../parts/layout';

interface Part {
  shop: ShopSnapshot;
  onChange: (shop: ShopSnapshot) => void;
}

/** The air of the shop, and what wood comes to in it. */
export function AirFields({ shop, onChange }: Part) {
  const display = useDisplay();
  const climate = climateOf(shop);
  const inch = display.system === 'inch';
  const temperature = dialled('temperature', display);
  const set = (change: Partial<Climate>) => {
    const next = { ...climate, ...change };
    onChange({ ...shop, climate: next });
  };
  const emc = isClimateKnown(climate) ? equilibriumMoisture(climate) : undefined;
  return (
    <section aria-label="Air" className="sheet p-4">
      <h2 className="pb-2 text-[17px] font-semibold">Air in the shop</h2>
      <div className="flex flex-wrap items-end gap-4">
        <div className="w-32">
          <NumberField
            label={`Temperature, ${temperature.unit}`}
            value={temperature.shown(climate.temperatureC)}
            least={inch ? 29 : -2}
            most={inch ? 122 : 50}
            onChange={(value) => set({ temperatureC: Math.max(-2, temperature.stored(value)) })}
          />
        </div>
        <div className="w-32">
          <NumberField
            label="Humidity, %"
            value={climate.humidityPct}
            least={0}
            most={95}
            onChange={(humidityPct) => set({ humidityPct })}
          />
        </div>
        <AirFromGauge onTake={set} />
        <p className="pb-1 text-[14px]">
          {emc === undefined ? (
            'Outside what is known for wood.'
          ) : (
            <>
              Wood comes to <span className="rule">{emc.toFixed(1)} %</span> in it
            </>
          )}
          {emc !== undefined && Math.abs(emc - shop.woodMoisturePct) > 1 && (
            <button
              type="button"
              className="text-chalk ml-2 underline"
              onClick={() => onChange({ ...shop, woodMoisturePct: Math.round(emc * 10) / 10 })}
            >
              plan with it instead of {shop.woodMoisturePct} %
            </button>
          )}
          <span className="text-graphite block text-[13px]">
            Wood Handbook, equation 4-5 (unverified); woods differ by about 1 %.
          </span>
        </p>
      </div>
    </section>
  );
}

/** How the shop glues, where makers disagree: each way with its reason. */
export function GluingChoice({ shop, onChange }: Part) {
  const display = useDisplay();
  const practice = gluingOf(shop);
  const inch = display.system === 'inch';
  // What stands among the machines is not kept a second time.
  const own = shop.gluing ?? DEFAULT_GLUE_PRACTICE;
  const set = (change: Partial<GluePractice>) => onChange({ ...shop, gluing: { ...own, ...change } });
  const addPaid = (paid: Partial<Machine>) => {
    const { paid: _, ...gluing } = own;
    const machine = { ...usualMachine('paid machine', freshId('machine', shop.machines)), ...paid };
    onChange({ ...shop, gluing, machines: [...shop.machines, machine] });
  };
  const length = (name: 'mostSpacing' | 'hollow' | 'shaving', label: string, mostMm: number) => (
    <LengthField
      label={label}
      value={practice[name]}
      display={name === 'mostSpacing' || !inch ? display : { ...display, fraction: 0 }}
      rule={{ minMm: name === 'mostSpacing' ? 0 : 0.01, maxMm: mostMm }}
      stepMm={name === 'mostSpacing' ? 0 : 0.05}
      onChange={(value) => set({ [name]: value })}
    />
  );
  return (
    <section aria-label="How this shop glues" className="sheet p-4">
      <h2 className="pb-2 text-[17px] font-semibold">How this shop glues</h2>
      <Columns least={28} most={2} gap={2} className="gap-y-4">
        <Item why={CLAMP_SCHOOLS.find(({ id }) => id === practice.school)?.why}>
          <Toggle
            label="Clamp spacing"
            value={practice.school}
            options={CLAMP_SCHOOLS.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={(school) => set({ school })}
          />
        </Item>
        <Item why="No clamps farther apart than this, whatever a method would allow on wide boards. 0: no such limit. The reaches are the measured method’s.">
          <div className="grid grid-cols-3 gap-3">
            {length('mostSpacing', 'Largest spacing', 2000)}
            <NumberField
              label="Reach, hardwood"
              value={practice.reachHard}
              least={0.5}
              most={5}
              onChange={(reachHard) => set({ reachHard })}
            />
            <NumberField
              label="Reach, softwood"
              value={practice.reachSoft}
              least={0.5}
              most={5}
              onChange={(reachSoft) => set({ reachSoft })}
            />
          </div>
        </Item>
        <Item
          why={`Firm: ${pressureText(PRESSURES_MPA.firm[0], display)} to ${pressureText(PRESSURES_MPA.firm[1], display)} by the wood’s density. Even squeeze-out: about ${pressureText(PRESSURES_MPA.even, display)}, the handbook’s least; more only dents and starves the joint.`}
        >
          <Toggle
            label="Pressure"
            value={practice.pressure}
            options={[
              { value: 'even', label: 'Even squeeze-out' },
              { value: 'firm', label: 'Firm' },
            ]}
            onChange={(pressure) => set({ pressure })}
          />
        </Item>
        <Item why="Middle first closes a sprung joint; rounds let strips settle; end by end suits one pair of hands.">
          <Toggle
            label="Tightened"
            value={practice.tightening}
            options={[
              { value: 'middle', label: 'Middle first' },
              { value: 'rounds', label: 'In rounds' },
              { value: 'ends', label: 'End by end' },
            ]}
            onChange={(tightening) => set({ tightening })}
          />
        </Item>
        <Item why="Over and under by turns keeps a panel from bowing towards the bars; one side with cauls is easier to clean.">
          <Toggle
            label="Bars"
            value={practice.faces}
            options={[
              { value: 'alternate', label: 'Above and below' },
              { value: 'oneSide', label: 'One side' },
            ]}
            onChange={(faces) => set({ faces })}
          />
        </Item>
        <Item why="Straight: no feeler gauge enters. Sprung: a slight hollow, so that the ends are held shut by the wood. A bulge is wrong in both.">
          <Toggle
            label="Edges"
            value={practice.edges}
            options={[
              { value: 'straight', label: 'Dead straight' },
              { value: 'sprung', label: 'Sprung' },
            ]}
            onChange={(edges) => set({ edges })}
          />
          <div className="grid grid-cols-2 gap-3">
            {length('hollow', 'Gap of a sprung joint', 5)}
            {length('shaving', 'One shaving', 1)}
          </div>
        </Item>
        <Item
          why={`${AID_KINDS.find(({ id }) => id === practice.aids)?.why}. Once a panel is wider than the planer, aids or hand flattening.`}
        >
          <Choice
            label="Kept flush by"
            value={practice.aids}
            options={AID_KINDS.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={(aids) => set({ aids: aids as AidKind })}
          />
        </Item>
        <Item why="Height counts towards the first joint: a thin outer strip wants far fewer clamps behind a caul.">
          <div className="grid grid-cols-3 gap-3">
            <LengthField
              label="Cauls, high"
              value={practice.cauls.height}
              display={display}
              rule={{ minMm: 0, maxMm: 500 }}
              onChange={(height) => set({ cauls: { ...practice.cauls, height } })}
            />
            <LengthField
              label="Wide"
              value={practice.cauls.width}
              display={display}
              rule={{ minMm: 0, maxMm: 500 }}
              onChange={(width) => set({ cauls: { ...practice.cauls, width } })}
            />
            <Choice
              label="Of"
              value={practice.cauls.species}
              options={SPECIES.map(({ id, common }) => ({ value: id, label: common }))}
              onChange={(species) => set({ cauls: { ...practice.cauls, species } })}
            />
          </div>
          <Toggle
            label="Against sticking"
            value={practice.cauls.protection}
            options={[
              { value: 'tape', label: 'Tape' },
              { value: 'wax', label: 'Wax' },
              { value: 'paper', label: 'Paper' },
            ]}
            onChange={(protection) => set({ cauls: { ...practice.cauls, protection } })}
          />
        </Item>
        <Item why={APPLICATORS.find(({ id }) => id === practice.applicator)?.why}>
          <Toggle
            label="Glue goes on with"
            value={practice.applicator}
            options={APPLICATORS.map(({ id, name }) => ({ value: id, label: name }))}
            onChange={(applicator) => set({ applicator })}
          />
          <Toggle
            label="On"
            value={String(practice.spreadFaces)}
            options={[
              { value: '1', label: 'One face' },
              { value: '2', label: 'Both faces' },
            ]}
            onChange={(v) => set({ spreadFaces: v === '2' ? 2 : 1 })}
          />
        </Item>
        <Item why="Wiped wet: clean, but thinned glue is rubbed into pores. Rubbery, at about half an hour: peels off. Hard: before the planer, blunts knives.">
          <Toggle
            label="Squeeze-out"
            value={practice.squeezeOut}
            options={[
              { value: 'wet', label: 'Wiped wet' },
              { value: 'rubbery', label: 'Scraped rubbery' },
              { value: 'hard', label: 'Scraped hard' },
            ]}
            onChange={(squeezeOut) => set({ squeezeOut })}
          />
        </Item>
        <Item why="The joint swells with the glue’s water and sinks later if it is machined too soon: 24 h is the cautious wait, 8 h and a night are common.">
          <div className="flex flex-wrap items-end gap-3">
            <Toggle
              label="Unclamped"
              value={practice.unclamp}
              options={[
                { value: 'label', label: 'As the label says' },
                { value: 'overnight', label: 'Overnight' },
              ]}
              onChange={(unclamp) => set({ unclamp })}
            />
            <div className="w-32">
              <NumberField
                label="Machined after, h"
                value={practice.surfaceWaitH}
                least={0}
                most={1000}
                onChange={(surfaceWaitH) => set({ surfaceWaitH })}
              />
            </div>
          </div>
        </Item>
        <Item why="An error of the fence adds up to twice itself at each joint. Planed folded together, or with faces opposed, the pair’s errors cancel.">
          <Toggle
            label="The edges of a joint are planed"
            value={practice.pairing ?? 'single'}
            options={[
              { value: 'single', label: 'One by one' },
              { value: 'folded', label: 'Folded' },
              { value: 'opposed', label: 'Faces opposed' },
            ]}
            onChange={(pairing) => set({ pairing })}
          />
        </Item>
        <Item why="Sections pass the planer and leave few joints for last; a sled flattens anything, slowly; pairs stay flush with aids; a paid machine costs days.">
          <Toggle
            label="A panel wider than the planer"
            value={practice.wide}
            options={[
              { value: 'sections', label: 'Sections' },
              { value: 'sled', label: 'Sled' },
              { value: 'pairs', label: 'Pairs' },
              { value: 'paid', label: 'Paid machine' },
            ]}
            onChange={(wide) => set({ wide })}
          />
          {paidMachineOf(shop) ? (
            <p className="text-[14px]">
              The paid machine stands among the machines, with its width, days and price.
            </p>
          ) : practice.paid ? (
            <div className="grid grid-cols-3 gap-3">
              <LengthField
                label="It takes"
                value={practice.paid.maxWidth}
                display={display}
                rule={{ minMm: 0, maxMm: 10_000 }}
                onChange={(maxWidth) => practice.paid && set({ paid: { ...practice.paid, maxWidth } })}
              />
              <NumberField
                label="Days away"
                value={practice.paid.days}
                least={0}
                most={365}
                onChange={(days) => practice.paid && set({ paid: { ...practice.paid, days } })}
              />
              <NumberField
                label={shop.currency ? `Price a piece, ${shop.currency}` : 'Price a piece'}
                value={fromMinor(practice.paid.priceMinor, shop.currency ?? '')}
                least={0}
                most={1_000_000}
                onChange={(price) =>
                  practice.paid &&
                  set({ paid: { ...practice.paid, priceMinor: toMinor(price, shop.currency ?? '') } })
                }
              />
              <button
                type="button"
                className="action col-span-3 self-start justify-self-start"
                onClick={() => practice.paid && addPaid(practice.paid)}
              >
                Put it among the machines
              </button>
            </div>
          ) : (
            <button type="button" className="action self-start" onClick={() => addPaid({})}>
              There is a paid machine
            </button>
          )}
        </Item>
        <CrewChoice practice={practice} basis={paceBasis(shop)} onChange={set} />
      </Columns>
    </section>
  );
}
