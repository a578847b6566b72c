import { SPECIES } from '../../core/wood/species';
import { Swatch } from './Swatch';

/** All woods to choose from, each with a small sign of what it looks like. */
export const WOODS = SPECIES.map(({ id, common }) => ({
  value: id,
  label: common,
  mark: <Swatch species={id} />,
}));
