import { cssColour } from '../../core/wood/css';
import { speciesName } from '../../core/wood/common';
import { lookOf } from '../../core/wood/species';

/** The colour of a wood: early wood with a band of late wood. */
export function Swatch({ species, size = 14 }: { species: string; size?: number }) {
  const look = lookOf(species);
  const [early, late] = [cssColour(look.early), cssColour(look.late)];
  return (
    <span
      role="img"
      aria-label={speciesName(species)}
      className="inline-block shrink-0 rounded-sm border border-black/15"
      style={{
        width: size * 1.4,
        height: size,
        background: `linear-gradient(100deg, ${early} 0 45%, ${late} 45% 60%, ${early} 60%)`,
      }}
    />
  );
}
