import { defaultShop } from './defaults';
import { DEFAULT_GLUE_PRACTICE } from './practice';

type Raw = Record<string, unknown>;
const isObject = (value: unknown): value is Raw =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** What is missing of an object, from another one; objects within likewise. */
const filled = (value: Raw, usual: Raw): Raw => ({
  ...value,
  ...Object.fromEntries(
    Object.entries(usual).flatMap(([name, own]) => {
      if (!(name in value)) return [[name, own]];
      const there = value[name];
      return isObject(there) && isObject(own) && !('mm' in own) ? [[name, filled(there, own)]] : [];
    }),
  ),
});

/**
 * The values of a shop as they were read, with the usual ones where some are missing: allowances, the setting step, the
 * step a thumb can feel, the wood's moisture, how numbers are read, and, where a shop says how it glues, what it leaves out of
 * that. What a shop may leave out for good, such as its clamps, stays out. Saws and machines are never made up. What
 * is no object is given back as it is; nothing is checked here.
 */
export function withUsualShop(shop: unknown): unknown {
  if (!isObject(shop)) return shop;
  const { allowances, settingStep, noticeableStep, woodMoisturePct, display } = defaultShop('');
  const usual: Raw = { allowances, settingStep, noticeableStep, woodMoisturePct, display };
  return filled(shop, isObject(shop.gluing) ? { ...usual, gluing: DEFAULT_GLUE_PRACTICE } : usual);
}
