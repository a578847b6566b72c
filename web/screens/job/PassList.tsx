import { DIAL_READS } from '../../../core/kit';
import { isNoPasses, type NoPasses, type Pass, type PassPlan } from '../../../core/steps';
import {
  counted,
  type Display,
  exactText,
  isOnMark,
  lengthText,
  lengthUnit,
  longText,
  offText,
} from '../../../core/units';
import { Measure } from '../../parts/Measure';

/** A turn of a crank as a hand does it: whole turns and degrees. */
function turnText(turns: number): string {
  const whole = Math.floor(turns + 1e-9);
  const degrees = Math.round((turns - whole) * 360);
  if (degrees === 360) return counted(whole + 1, 'turn');
  return [whole > 0 ? counted(whole, 'turn') : '', degrees > 0 || whole === 0 ? `${degrees}°` : '']
    .filter(Boolean)
    .join(' ');
}

/** What to set the machine to, pass by pass. */
export function PassList({
  plan,
  display,
  named = true,
}: {
  plan: PassPlan | NoPasses;
  display: Display;
  /** It is the only one here, and a place to go to. */
  named?: boolean;
}) {
  if (isNoPasses(plan)) return null;
  // Settings are set as the scale of the machine reads, whatever the shop measures in.
  const scale = DIAL_READS.find(({ id }) => id === plan.reads)?.display ?? display;
  const passes = plan.faces.flatMap(({ face, passes: of }) =>
    of.map((pass, i) => ({ face, pass, first: i === 0 })),
  );
  const turned = passes.some(({ pass }) => pass.turns !== undefined);
  return (
    <section aria-label={named ? 'Passes' : undefined}>
      <h3 className="label pb-1">
        {plan.machine}: {counted(passes.length, 'pass', 'passes')}
      </h3>
      <p className="text-graphite pb-1 text-[13.5px]">
        It touches at <Dialled mm={plan.startMm} display={scale} /> {lengthUnit(scale)}
        {plan.carrierMm > 0 && (
          <>
            , with the carrier of <Measure value={plan.carrierMm} display={display} unit />
          </>
        )}
        . {balanceText(plan, display)}
      </p>
      <table className="w-full text-[14px]">
        <thead>
          <tr className="label text-left">
            <th className="font-medium">Pass</th>
            <th className="font-medium">Face</th>
            <th className="text-right font-medium">Set to{plan.reads && `, ${lengthUnit(scale)}`}</th>
            {turned && <th className="text-right font-medium">Crank</th>}
            <th className="text-right font-medium">Takes</th>
          </tr>
        </thead>
        <tbody>
          {passes.map(({ face, pass, first }, i) => (
            <PassLine
              key={i}
              nth={i + 1}
              face={first ? face : ''}
              pass={pass}
              turned={turned}
              display={display}
              scale={scale}
            />
          ))}
        </tbody>
      </table>
      {plan.knives && (
        <p className="text-graphite pt-1 text-[13.5px]">
          Its knives meet {longText(plan.knives.meetsMm, display)} here; they have run{' '}
          {longText(plan.knives.ranMm, display)} of {longText(plan.knives.lastsMm, display)}.
        </p>
      )}
      {plan.thin.map(({ piece, missingMm }) => (
        <p key={piece} className="text-red pt-1 text-[14px]">
          Piece {piece} is too thin to come clean on both faces: {lengthText(missingMm, display)} is missing.
        </p>
      ))}
    </section>
  );
}

/** How the faces share what comes off. */
function balanceText({ faces }: PassPlan, display: Display): string {
  const off = faces.map(({ face, passes }) => ({
    face,
    mm: passes.reduce((sum, { takesMm }) => sum + takesMm, 0),
  }));
  if (off.length === 2 && Math.abs(off[0].mm - off[1].mm) < 0.02)
    return `Both faces lose ${offText(off[0].mm, display)}.`;
  return `${off.map(({ face, mm }) => `The ${face} face loses ${offText(mm, display)}`).join(', ')}.`;
}

/** A setting as it is dialled: on a mark of the rule, or in decimals where it lies between two. */
const Dialled = ({ mm, display }: { mm: number; display: Display }) =>
  isOnMark(mm, display) ? (
    <Measure value={mm} display={display} />
  ) : (
    <span className="rule" title={exactText(mm)}>
      {offText(mm, display)}
    </span>
  );

const PassLine = ({
  nth,
  face,
  pass,
  turned,
  display,
  scale,
}: {
  nth: number;
  face: string;
  pass: Pass;
  turned: boolean;
  display: Display;
  /** How the machine's scale reads. */
  scale: Display;
}) => (
  <tr className="border-line border-t border-dotted">
    <td className="py-0.5">{nth}</td>
    <td>{face}</td>
    <td className="text-right">
      <Dialled mm={pass.settingMm} display={scale} />
    </td>
    {turned && <td className="rule text-right">{pass.turns === undefined ? '' : turnText(pass.turns)}</td>}
    <td className="text-right">
      <Dialled mm={pass.takesMm} display={display} />
    </td>
  </tr>
);
