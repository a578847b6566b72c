import type { OutlineCorner } from '../../../core/steps';
import type { Length } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { Choice } from '../../parts/Choice';
import { LengthField } from '../../parts/LengthField';
import { useSettle } from './use-edit';

const ANY = { minMm: -10_000, maxMm: 30_000 };
const SOME = { minMm: 0, maxMm: 30_000 };

const SIDES = [
  { value: 'straight', label: 'Straight' },
  { value: 'rise', label: 'An arc, by how far it rises' },
  { value: 'arc', label: 'An arc, by its radius' },
  { value: 'through', label: 'An arc through a third point' },
  { value: 'curve', label: 'A smooth curve' },
] as const;
type SideKind = (typeof SIDES)[number]['value'];

const ENDS = [
  { value: 'sharp', label: 'Sharp' },
  { value: 'radius', label: 'Round' },
  { value: 'clip', label: 'Cut off' },
] as const;
type EndKind = (typeof ENDS)[number]['value'];

const sideOf = ({ curve, through, arc, rise }: OutlineCorner): SideKind =>
  curve ? 'curve' : through ? 'through' : arc ? 'arc' : rise ? 'rise' : 'straight';

/** The same corner with its side straight. */
const straight = ({ rise: _rise, arc: _arc, through: _through, curve: _curve, ...rest }: OutlineCorner) =>
  rest;
/** The same corner, sharp. */
const sharp = ({ radius: _radius, clip: _clip, ...rest }: OutlineCorner) => rest;

/** One corner of an outline: where it lies, what is made of it, and how the side to the next one runs. */
export function CornerFields({
  corner,
  next,
  nextNumber,
  stepMm,
  onChange,
}: {
  corner: OutlineCorner;
  next: OutlineCorner;
  nextNumber: number;
  /** What sizes are rounded to, mm. */
  stepMm: number;
  onChange: (corner: OutlineCorner, mark?: string) => void;
}) {
  const display = useDisplay();
  const settle = useSettle();
  const chord = Math.hypot(next.x.mm - corner.x.mm, next.y.mm - corner.y.mm);
  const length = (label: string, value: Length, set: (length: Length) => OutlineCorner, rule = ANY) => (
    <LengthField
      key={label}
      label={label}
      value={value}
      display={display}
      rule={rule}
      onChange={(own) => onChange(set(own), label)}
      onSettled={settle}
    />
  );
  const nice = (mm: number): Length => ({ mm: Math.round(mm / stepMm) * stepMm });
  const begin = (kind: SideKind): OutlineCorner => {
    const own = straight(corner);
    switch (kind) {
      case 'rise':
        // Inwards, where there is wood.
        return { ...own, rise: nice(-Math.max(stepMm, chord / 40)) };
      case 'arc':
        return { ...own, arc: nice(-Math.max(stepMm, 5 * chord)) };
      case 'through': {
        // A little to its left: inwards where corners go round counter-clockwise.
        const [dx, dy] = [next.x.mm - corner.x.mm, next.y.mm - corner.y.mm];
        return {
          ...own,
          through: {
            x: nice((corner.x.mm + next.x.mm) / 2 - dy / 40),
            y: nice((corner.y.mm + next.y.mm) / 2 + dx / 40),
          },
        };
      }
      case 'curve':
        return { ...own, curve: true };
      case 'straight':
        return own;
    }
  };
  const end: EndKind = corner.clip ? 'clip' : corner.radius ? 'radius' : 'sharp';
  const side = sideOf(corner);
  const { through } = corner;
  return (
    <div className="grid grid-cols-2 items-end gap-x-3 gap-y-2.5">
      {length('From the left end', corner.x, (x) => ({ ...corner, x }))}
      {length('From the near edge', corner.y, (y) => ({ ...corner, y }))}
      <Choice
        label="The corner is"
        value={end}
        options={[...ENDS]}
        onChange={(kind) =>
          onChange(kind === 'sharp' ? sharp(corner) : { ...sharp(corner), [kind]: nice(10) })
        }
      />
      {end === 'radius' && corner.radius
        ? length('Radius', corner.radius, (radius) => ({ ...corner, radius }), SOME)
        : end === 'clip' && corner.clip
          ? length('Along both sides', corner.clip, (clip) => ({ ...corner, clip }), SOME)
          : null}
      <Choice
        label={`The side to corner ${nextNumber}`}
        className="col-span-full"
        value={side}
        options={[...SIDES]}
        onChange={(kind) => onChange(begin(kind as SideKind))}
      />
      {side === 'rise' &&
        corner.rise &&
        length('Rise, inwards with a minus', corner.rise, (rise) => ({ ...corner, rise }))}
      {side === 'arc' &&
        corner.arc &&
        length('Radius of the arc, inwards with a minus', corner.arc, (arc) => ({ ...corner, arc }))}
      {side === 'through' && through && (
        <>
          {length('Third point, from the left end', through.x, (x) => ({
            ...corner,
            through: { ...through, x },
          }))}
          {length('Third point, from the near edge', through.y, (y) => ({
            ...corner,
            through: { ...through, y },
          }))}
        </>
      )}
      {side === 'curve' && (
        <p className="text-graphite col-span-full text-[13.5px]">
          Runs on from the sides beside it without a corner, through every corner of the curve.
        </p>
      )}
    </div>
  );
}
