import { useEffect, useState } from 'react';
import type { BuildDocument, PlaceOfUse } from '../../../core/document';
import { AIR_KINDS, type AirKind, DEFAULT_AIR, ROOM_HUMIDITY, yearOf } from '../../../core/kit';
import { dialled, type Display, offText } from '../../../core/units';
import type { MovementSheet } from '../../../core/view';
import { MOVEMENT_RELATIONS, type MovementRelation } from '../../../core/wood';
import { useDisplay } from '../../app/display';
import { movementOf } from '../../app/predicting';
import { YearCurve } from '../../drawing/YearCurve';
import { Choice } from '../../parts/Choice';
import { Measure } from '../../parts/Measure';
import { NumberField } from '../../parts/NumberField';
import { Window } from '../../parts/Window';
import { Working } from '../../parts/Working';
import { Row } from './CardParts';
import { Facts } from './Facts';
import { useEdit } from './use-edit';
import { Beside } from '../../parts/layout';

const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];

/** The sheet of a build's movement; the last one stays while a new one is computed. */
function useMovement(build: BuildDocument): { sheet?: MovementSheet; why?: string } | undefined {
  const [known, setKnown] = useState<{ sheet?: MovementSheet; why?: string }>();
  useEffect(() => {
    let here = true;
    movementOf(build).then(
      (sheet) =>
        here &&
        setKnown(
          sheet ? { sheet } : { why: 'No piece comes out of this job yet: mend what stops it first.' },
        ),
      (error: unknown) =>
        here && setKnown({ why: `This could not be computed: ${(error as Error).message}` }),
    );
    return () => {
      here = false;
    };
  }, [build]);
  return known;
}

/** The piece through a year at its place: how wide it is month by month, each board, each joint, and what is fitted to it. */
export function MovementWindow({ build, onClose }: { build: BuildDocument; onClose: () => void }) {
  const known = useMovement(build);
  const display = useDisplay();
  const sheet = known?.sheet;
  return (
    <Window title="Movement over the year" open onClose={onClose} broad>
      <Beside>
        <div className="min-w-0">
          {!known && <Working>Computing a year …</Working>}
          {known?.why && (
            <p role="status" className="text-red">
              {known.why}
            </p>
          )}
          {sheet && (
            <>
              <h3 className="label">Width, month by month</h3>
              <YearCurve widths={sheet.widths} fitted={sheet.size[1]} display={display} name="Width" />
              <Sizes sheet={sheet} />
              <Boards sheet={sheet} />
            </>
          )}
        </div>
        <div>
          <PlaceSettings build={build} sheet={sheet} />
          {sheet && sheet.fittings.length > 0 && (
            <section aria-label="What is fitted" className="pt-4">
              <h3 className="label pb-1">What is fitted</h3>
              {sheet.fittings.map(({ step, id, name, facts, problems }) => (
                <div key={`${step} ${id}`} className="pb-2">
                  <p className={`text-[14.5px] font-semibold ${problems > 0 ? 'text-red' : ''}`}>
                    {name}
                    {problems > 0 ? ': does not do' : ''}
                  </p>
                  <Facts facts={facts} display={display} title={name} />
                </div>
              ))}
            </section>
          )}
        </div>
      </Beside>
    </Window>
  );
}

function Sizes({ sheet }: { sheet: MovementSheet }) {
  const display = useDisplay();
  return (
    <section aria-label="Sizes over the year" className="pt-2">
      <dl>
        {(['Length', 'Width', 'Thickness'] as const).map((name, axis) => {
          const { out, in: inwards } = sheet.moves[axis];
          return (
            <Row key={name} name={name}>
              <Measure value={sheet.size[axis]} display={display} unit />{' '}
              <span className="rule text-[14px]">
                + {offText(out, display)} − {offText(inwards, display)}
              </span>
            </Row>
          );
        })}
        <Row name="Width, if every board were flat-sawn">
          <span className="rule text-[14px]">
            + {offText(sheet.atMost.out, display)} − {offText(sheet.atMost.in, display)}
          </span>
        </Row>
      </dl>
      <p className="text-graphite pt-1 text-[13px]">
        Wood lags behind the air and moves a little less. Rings of boards that nobody looked at are a guess:
        enter them on the rack.
      </p>
    </section>
  );
}

/** Less than this no thumb feels, mm (common practice). */
const NO_STEP_MM = 0.01;
const stepText = (mm: number, display: Display): string => (mm < NO_STEP_MM ? '–' : offText(mm, display));

/** So many boards are listed; a chequer of more is told by its sizes. */
const MOST_LISTED = 40;

function Boards({ sheet }: { sheet: MovementSheet }) {
  const display = useDisplay();
  const boards = sheet.boards.slice(0, MOST_LISTED);
  if (boards.length < 2) return null;
  return (
    <section aria-label="Board by board" className="pt-3">
      <h3 className="label pb-1">Board by board, from the near edge, at its middle</h3>
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Boards over the year">
        <table className="w-full text-[14px]">
          <thead>
            <tr className="text-graphite text-left">
              <th className="py-1 pr-3 font-medium">Board</th>
              <th className="pr-3 text-right font-medium">Width</th>
              <th className="pr-3 text-right font-medium">Rings</th>
              <th className="pr-3 text-right font-medium">Out</th>
              <th className="pr-3 text-right font-medium">In</th>
              <th className="text-right font-medium">Step at the next joint</th>
            </tr>
          </thead>
          <tbody>
            {boards.map(({ wood, mm, ringDegrees, moves }, i) => (
              <tr key={`${i + 1}`} className="border-line border-t border-dotted">
                <td className="py-1 pr-3">
                  {i + 1}. {wood}
                </td>
                <td className="pr-3 text-right">
                  <Measure value={mm} display={display} />
                </td>
                <td className="rule pr-3 text-right">
                  {ringDegrees === undefined ? 'along' : `${Math.round(ringDegrees)}°`}
                </td>
                <td className="rule pr-3 text-right">{offText(moves.out, display)}</td>
                <td className="rule pr-3 text-right">{offText(moves.in, display)}</td>
                <td className="rule text-right">
                  {sheet.joints[i] ? stepText(sheet.joints[i].stepMm, display) : ''}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {sheet.boards.length > MOST_LISTED && (
        <p className="text-graphite text-[13px]">and {sheet.boards.length - MOST_LISTED} more</p>
      )}
    </section>
  );
}

const OWN = 'own';
const MONTHLY = 'monthly';
const sameAir = (a: Pick<AirKind, 'dry' | 'damp'>, b: Pick<AirKind, 'dry' | 'damp'>) =>
  JSON.stringify([a.dry, a.damp]) === JSON.stringify([b.dry, b.damp]);

/** Where the piece will stand: a kind of room, or its own air; what it was fitted at; by what movement is told. */
function PlaceSettings({ build, sheet }: { build: BuildDocument; sheet: MovementSheet | undefined }) {
  const edit = useEdit();
  const display = useDisplay();
  const inch = display.system === 'inch';
  const temperature = dialled('temperature', display);
  const { place } = build;
  const air: PlaceOfUse = place ?? DEFAULT_AIR;
  const kind = place?.months ? MONTHLY : (AIR_KINDS.find((each) => sameAir(each, air))?.id ?? OWN);
  const set = (change: { [K in keyof PlaceOfUse]?: PlaceOfUse[K] | undefined }, mark?: string) => {
    const { dry, damp, driest, months, fittedPct, relation } = { ...air, ...change };
    const next: PlaceOfUse = {
      dry: dry ?? air.dry,
      damp: damp ?? air.damp,
      ...(driest === undefined ? {} : { driest }),
      ...(months ? { months } : {}),
      ...(fittedPct === undefined ? {} : { fittedPct }),
      ...(relation ? { relation } : {}),
    };
    edit({ do: 'setPlace', place: next }, mark && `place.${mark}`);
  };
  const humidity = (label: string, which: 'dry' | 'damp') => (
    <>
      <NumberField
        label={`${label}, humidity %`}
        value={air[which].humidityPct}
        least={ROOM_HUMIDITY.least}
        most={ROOM_HUMIDITY.most}
        onChange={(humidityPct) => set({ [which]: { ...air[which], humidityPct } }, `${which}.h`)}
      />
      <NumberField
        label={`${label}, ${temperature.unit}`}
        value={temperature.shown(air[which].temperatureC)}
        least={inch ? 29 : -2}
        most={inch ? 122 : 50}
        onChange={(typed) =>
          set(
            { [which]: { ...air[which], temperatureC: Math.max(-2, temperature.stored(typed)) } },
            `${which}.t`,
          )
        }
      />
    </>
  );
  return (
    <section aria-label="Where it will stand">
      <h3 className="label pb-1">Where it will stand{place ? '' : ': assumed, until you say'}</h3>
      <div className="grid grid-cols-2 items-end gap-x-3 gap-y-2.5">
        <Choice
          label="Kind of room"
          className="col-span-2"
          value={kind}
          options={[
            ...AIR_KINDS.map(({ id, name }) => ({ value: id, label: name })),
            // Typed humidities are that by themselves.
            ...(kind === OWN || kind === MONTHLY
              ? [{ value: OWN, label: 'Two months as measured there' }]
              : []),
            { value: MONTHLY, label: 'All twelve months as measured there' },
          ]}
          onChange={(id) => {
            const chosen = AIR_KINDS.find((each) => each.id === id);
            if (chosen) set({ dry: chosen.dry, damp: chosen.damp, driest: chosen.driest, months: undefined });
            else if (id === OWN) set({ months: undefined });
            else
              set({
                months: yearOf(air).map((each) => ({ ...each, humidityPct: Math.round(each.humidityPct) })),
              });
          }}
        />
        {place?.months ? (
          <Months months={place.months} onChange={(months, mark) => set({ months }, `months.${mark}`)} />
        ) : (
          <>
            {humidity('Driest month', 'dry')}
            {humidity('Dampest month', 'damp')}
            <Choice
              label="The driest month is"
              className="col-span-2"
              value={String(air.driest ?? 1)}
              options={MONTHS.map((label, i) => ({ value: String(i + 1), label }))}
              onChange={(month) => set({ driest: Number(month) })}
            />
          </>
        )}
        <NumberField
          label="Moisture when fitted, %"
          value={air.fittedPct ?? build.shop.woodMoisturePct}
          least={3}
          most={25}
          onChange={(fittedPct) => set({ fittedPct }, 'fitted')}
        />
        <Choice
          label="Told by"
          value={air.relation ?? 'coefficient'}
          options={[...MOVEMENT_RELATIONS]}
          onChange={(relation) => set({ relation: relation as MovementRelation })}
        />
      </div>
      {sheet && (
        <p className="pt-2 text-[14px]">
          Its wood comes to {pct(sheet.swing.dry)} in the driest month and {pct(sheet.swing.damp)} in the
          dampest.
        </p>
      )}
    </section>
  );
}

const pct = (n: number): string => `${Math.round(n * 10) / 10} %`;

/** The humidity of each month, as it was read in the room. */
function Months({
  months,
  onChange,
}: {
  months: NonNullable<PlaceOfUse['months']>;
  onChange: (months: NonNullable<PlaceOfUse['months']>, mark: string) => void;
}) {
  return (
    <fieldset className="col-span-2 grid grid-cols-3 gap-2">
      <legend className="label pb-1">Humidity month by month, %</legend>
      {months.map(({ temperatureC, humidityPct }, i) => (
        <NumberField
          key={MONTHS[i]}
          label={MONTHS[i]}
          value={humidityPct}
          least={ROOM_HUMIDITY.least}
          most={ROOM_HUMIDITY.most}
          onChange={(next) =>
            onChange(
              months.map((each, k) => (k === i ? { temperatureC, humidityPct: next } : each)),
              String(i),
            )
          }
        />
      ))}
    </fieldset>
  );
}
