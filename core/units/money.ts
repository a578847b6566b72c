/** Figures behind the point of a currency (ISO 4217, as the platform's tables have it): 2 for EUR, 0 for JPY, 3 for KWD. Two for a code nobody knows. */
export function minorDigits(currency: string): number {
  try {
    const { maximumFractionDigits } = new Intl.NumberFormat('en', {
      style: 'currency',
      currency,
    }).resolvedOptions();
    return maximumFractionDigits ?? 2;
  } catch (error) {
    if (error instanceof RangeError) return 2;
    throw error;
  }
}

/** An amount as it is typed, in the minor units in which it is kept, whole. */
export const toMinor = (amount: number, currency: string): number =>
  Math.round(amount * 10 ** minorDigits(currency));

/** Minor units as the amount that is typed. */
export const fromMinor = (minor: number, currency: string): number => minor / 10 ** minorDigits(currency);

/** Money as text: the amount with as many figures as its currency has, and the currency's code. */
export function moneyText(minor: number, currency: string): string {
  const digits = minorDigits(currency);
  const amount = fromMinor(minor, currency).toLocaleString('en', {
    minimumFractionDigits: digits,
    maximumFractionDigits: digits,
  });
  return `${amount} ${currency}`;
}
