/**
 * Digits after the point of a currency: 2 for the euro, 0 for the yen (ISO 4217). @throws RangeError for a code that is
 * none.
 */
export const minorDigits = (currency: string): number =>
  new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ?? 2

/** Minor units of a currency, cents for the euro, in whole ones. */
export const fromMinor = (minor: number, currency: string): number => minor / 10 ** minorDigits(currency)

/** Money as text: its amount in whole units with the decimals of its currency, and the code. */
export const moneyText = (minor: number, currency: string): string =>
  `${fromMinor(minor, currency).toFixed(minorDigits(currency))} ${currency}`
