import { MATERIAL_KINDS, materialOf, SPECIES, type Species } from '../../core/wood';
import type { Option } from './choice-face';
import { Swatch } from './Swatch';

const option = ({ id, common, material }: Species): Option => ({
  value: id,
  label: common,
  mark: <Swatch species={id} />,
  ...(material ? { group: MATERIAL_KINDS[material].name } : {}),
});

/** All woods to choose from, each with a small sign of what it looks like; sheets and metals after them, by kind. */
export const WOODS: readonly Option[] = SPECIES.map(option);

/** Those that patterns can be planned from: what is milled from rough boards. */
export const MILLED_WOODS: readonly Option[] = SPECIES.filter(({ id }) => materialOf(id).milled).map(option);
