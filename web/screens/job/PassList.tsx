import { isNoPasses, type NoPasses, type Pass, type PassPlan } from '../../../core/steps';
import {
  counted,
  type Display,
  exactText,
  isOnMark,
  lengthText,
  lengthUnit,
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
export function PassList({ plan, display }: { plan: PassPlan | NoPasses; display: Display }) {
  if (isNoPasses(plan))
    return (
      <p role="alert" className="text-red text-[14px]">
        {plan.most === undefined
          ? `No settings: one step of the dial, ${lengthText(plan.stepMm, display)}, is more than the ${lengthText(plan.biteMm, display)} that the machine takes in a pass. Correct either in the kit.`
          : `No settings: that would be more than ${plan.most} passes of ${lengthText(plan.biteMm, display)}. Correct the most a pass in the kit, or take another machine.`}
      </p>
    );
  const passes = plan.faces.flatMap(({ face, passes: of }) =>
    of.map((pass, i) => ({ face, pass, first: i === 0 })),
  );
  const turned = passes.some(({ pass }) => pass.turns !== undefined);
  return (
    <section aria-label="Passes">
      <h3 className="label pb-1">
        {plan.machine}: {counted(passes.length, 'pass', 'passes')}
      </h3>
      <p className="text-graphite pb-1 text-[13.5px]">
        It touches at <Dialled mm={plan.startMm} display={display} /> {lengthUnit(display)}
        {plan.carrierMm > 0 && (
          <>
            , with the carrier of <Measure value={plan.carrierMm} display={display} unit />
          </>
        )}
        .
      </p>
      <table className="w-full text-[14px]">
        <thead>
          <tr className="label text-left">
            <th className="font-medium">Pass</th>
            <th className="font-medium">Face</th>
            <th className="text-right font-medium">Set to</th>
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
            />
          ))}
        </tbody>
      </table>
      {plan.thin.map(({ piece, missingMm }) => (
        <p key={piece} className="text-red pt-1 text-[14px]">
          Piece {piece} is too thin to come clean on both faces: {lengthText(missingMm, display)} is missing.
        </p>
      ))}
    </section>
  );
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
}: {
  nth: number;
  face: string;
  pass: Pass;
  turned: boolean;
  display: Display;
}) => (
  <tr className="border-line border-t border-dotted">
    <td className="py-0.5">{nth}</td>
    <td>{face}</td>
    <td className="text-right">
      <Dialled mm={pass.settingMm} display={display} />
    </td>
    {turned && <td className="rule text-right">{pass.turns === undefined ? '' : turnText(pass.turns)}</td>}
    <td className="text-right">
      <Dialled mm={pass.takesMm} display={display} />
    </td>
  </tr>
);
