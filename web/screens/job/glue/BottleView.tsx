import { GLUE_USES, type GlueUse } from '../../../../core/document';
import { crewOf, type JudgedBottle } from '../../../../core/glueup';
import { ADHESIVE_SOURCE, APPLICATORS, climateOf } from '../../../../core/kit';
import {
  areaText,
  fluidText,
  lengthUnit,
  minutesText,
  offText,
  smallMassText,
  temperatureText,
} from '../../../../core/units';
import { useDisplay } from '../../../app/display';
import { Toggle } from '../../../parts/Toggle';
import { useEdit } from '../use-edit';
import { Fact, type GluePart, Say, usePlanGlue, Why } from './parts';
import { How } from '../../../parts/How';

const range = ([a, b]: readonly [number, number]): string =>
  a === b ? minutesText(a) : `${minutesText(a)} to ${minutesText(b)}`;

/** Glue: what it must stand, which bottle, how much and how it is spread. */
export function BottleView({ build, step, planned }: GluePart) {
  const edit = useEdit();
  const display = useDisplay();
  const { uses, usesGuessed, shelf, bottle, amount, glueUp } = planned;
  const crew = crewOf(glueUp, build.shop);
  const climate = climateOf(build.shop);
  const set = usePlanGlue(step);
  const toggle = (use: GlueUse) =>
    edit({ do: 'setUses', uses: uses.includes(use) ? uses.filter((each) => each !== use) : [...uses, use] });
  return (
    <>
      <fieldset>
        <legend className="label pb-1">
          It must stand{usesGuessed ? ', guessed from the job’s words and woods' : ''}
        </legend>
        <div className="flex flex-wrap gap-1.5">
          {GLUE_USES.map(({ id, name }) => (
            <button
              key={id}
              type="button"
              aria-pressed={uses.includes(id)}
              className={`h-7 rounded border px-2 text-[13.5px] font-medium ${uses.includes(id) ? 'border-chalk bg-chalk-wash text-chalk' : 'border-line bg-white'}`}
              onClick={() => toggle(id)}
            >
              {name}
            </button>
          ))}
        </div>
      </fieldset>
      <section aria-label="Bottles on the shelf">
        <h3 className="label pb-1">On the shelf, those that suit first</h3>
        <ul className="flex flex-col gap-1">
          {shelf.map((each) => (
            <Bottle
              key={each.bottle.id}
              judged={each}
              chosen={each.bottle.id === bottle?.bottle.id}
              onChoose={() => set({ adhesive: each.bottle.id })}
            />
          ))}
        </ul>
      </section>
      {bottle && amount && (
        <dl>
          <Fact name="Glued area, all blanks">{areaText(glueUp.areaMm2 * glueUp.blanks, display)}</Fact>
          <Fact name="Takes">
            {smallMassText(amount.leastG, display)} to {smallMassText(amount.mostG, display)}
          </Fact>
          <Fact name="To pour, with what stays in the tool">
            {smallMassText(amount.toTakeG, display)}, {fluidText(amount.toTakeMl, display)}
            <How of={({ workedGlue }) => [workedGlue(build, step.id)]} what="Glue to take" />
          </Fact>
          <Fact
            name="Open, at the shop’s air"
            title={`${range(bottle.facts.openMin)} at ${temperatureText(21, display)} and 50 %`}
          >
            {minutesText(bottle.times.openMin)}
          </Fact>
          <Fact
            name="To the last clamp"
            title={`${range(bottle.facts.closedMin)} at ${temperatureText(21, display)} and 50 %`}
          >
            {minutesText(bottle.times.closedMin)}
          </Fact>
          <Fact name="In clamps" title={range(bottle.facts.clampMin)}>
            {minutesText(bottle.times.clampMin)}
          </Fact>
          <Fact name="Full strength after">{minutesText(bottle.times.stressedMin)}</Fact>
          <Fact name="Least temperature">{temperatureText(bottle.facts.leastC, display)}</Fact>
          <Fact name="Water">
            {bottle.facts.water === 'none'
              ? 'none'
              : bottle.facts.water === 'full'
                ? 'fully outdoors'
                : bottle.facts.water}
          </Fact>
          <Fact name="Fills gaps to">
            {offText(bottle.facts.gapMm, display)} {lengthUnit(display)}
          </Fact>
          <Fact name="Dries, is cleaned with">
            {bottle.facts.colour}, {bottle.facts.cleaning}
          </Fact>
        </dl>
      )}
      {bottle?.notes.map((words, i) => (
        <p key={i} className="text-[13.5px]">
          <Say phrase={words} />
        </p>
      ))}
      <Toggle
        label="Spread with"
        value={crew.applicator}
        options={APPLICATORS.map(({ id, name }) => ({
          value: id,
          label: name.replace(' and finger', '').replace('Notched spreader', 'Notched'),
        }))}
        onChange={(applicator) => set({ applicator })}
      />
      <Toggle
        label="On"
        value={String(crew.faces)}
        options={[
          { value: '1', label: 'One face' },
          { value: '2', label: 'Both faces' },
        ]}
        onChange={(faces) => set({ faces: faces === '2' ? 2 : 1 })}
      />
      {planned.strength && (
        <p className="border-graphite bg-faint border-l-[3px] p-2 text-[13.5px]">
          <Say phrase={planned.strength} />
        </p>
      )}
      <Why>
        The shop is at {temperatureText(climate.temperatureC, display)} and {climate.humidityPct} %
        {planned.woodMoisturePct !== undefined && `, wood comes to ${planned.woodMoisturePct.toFixed(1)} %`}.{' '}
        {ADHESIVE_SOURCE}
      </Why>
    </>
  );
}

function Bottle({
  judged,
  chosen,
  onChoose,
}: {
  judged: JudgedBottle;
  chosen: boolean;
  onChoose: () => void;
}) {
  const { bottle, facts, against } = judged;
  return (
    <li>
      <button
        type="button"
        data-bottle={bottle.id}
        aria-pressed={chosen}
        className={`w-full rounded border px-2 py-1 text-left text-[14px] ${chosen ? 'border-chalk bg-chalk-wash' : 'border-line bg-white'}`}
        onClick={onChoose}
      >
        <span className="flex justify-between gap-2 font-medium">
          {bottle.name}
          <span className={`text-[13px] ${against.length > 0 ? 'text-red' : 'text-green'}`}>
            {against.length > 0 ? '✕ not here' : '✓ suits'}
          </span>
        </span>
        {against.map((words, i) => (
          <span key={i} className="text-graphite block text-[13px]">
            <Say phrase={words} />
          </span>
        ))}
        {against.length === 0 && <span className="text-graphite block text-[13px]">{facts.waterWords}</span>}
      </button>
    </li>
  );
}
