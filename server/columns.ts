import type { ValueTransformer } from 'typeorm';

/** Plain data in a column. Text that is no JSON any more reads as nothing: whoever reads the row says what that means. */
export const json: ValueTransformer = {
  to: (value: unknown) => JSON.stringify(value),
  from: (value: string) => {
    try {
      return JSON.parse(value);
    } catch (error) {
      if (error instanceof SyntaxError) return null;
      throw error;
    }
  },
};
/** When a row was made. */
export const created = { type: 'datetime' as const, precision: 3, default: () => 'CURRENT_TIMESTAMP(3)' };
