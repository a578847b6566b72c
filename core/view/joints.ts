import type { JointReading } from '../layup';
import { type Display, lengthText } from '../units';

/** Smaller steps between neighbours than this are not told, mm: nobody feels them. */
const TOLD_STEP_MM = 0.02;

const RINGS: Record<JointReading['rings'], string> = {
  alternating: 'rings the other way up',
  alike: 'rings the same way up',
  unclear: 'rings too upright to say',
};
const PLANING: Record<JointReading['planing'], string> = {
  agree: 'both plane the same way',
  opposed: 'they plane against one another',
  unknown: 'planing not looked at',
};
const SAP: Record<NonNullable<JointReading['sap']>, string> = {
  both: 'sapwood on both sides',
  one: 'sapwood against heartwood',
  none: 'heartwood on both sides',
};

/**
 * All that the signs on a joint say, in words: the places of the two strips in the lay-up `order`, the difference of their
 * colours (CIEDE2000), lines, rings, planing, sapwood, common board and the step in thickness.
 */
export function jointSentence(reading: JointReading, order: readonly string[], display: Display): string {
  const { between, difference, figure, rings, planing, sap, same, stepMm } = reading;
  const [far, near] = between.map((piece) => order.indexOf(piece) + 1);
  const lines = figure
    ? `lines at ${Math.round(figure.far)}° and ${Math.round(figure.near)}° ${figure.through ? 'run through' : 'break off'}`
    : 'no lines looked at';
  return `${[
    `Strips ${far} and ${near}: colours ${Math.round(difference)} apart`,
    lines,
    RINGS[rings],
    PLANING[planing],
    ...(sap ? [SAP[sap]] : []),
    ...(same ? [`both from one ${same}`] : []),
    ...(showsStep(reading) ? [`a step of ${lengthText(stepMm, display)}`] : []),
  ].join('; ')}.`;
}

/** Whether a joint has a step between its strips that is told. */
export const showsStep = ({ stepMm }: Pick<JointReading, 'stepMm'>): boolean => stepMm > TOLD_STEP_MM;
