import { NumberField, type NumberFieldProps } from './NumberField';

/** A whole number from `least` (1 if missing) to `most`. */
export const CountField = ({
  least = 1,
  ...props
}: Omit<NumberFieldProps, 'least' | 'whole'> & { least?: number }) => (
  <NumberField {...props} least={least} whole />
);
