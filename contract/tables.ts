/** Tables (CSV) that go out; those that also come in. */
export const CSV_TABLES = [
  'claims',
  'runs',
  'curves',
  'tracers',
  'prices',
  'parts',
  'tanks',
  'visits',
] as const
export type CsvTable = (typeof CSV_TABLES)[number]
export const CSV_IN = ['claims', 'runs', 'prices', 'parts', 'tanks', 'visits'] as const
export type CsvIn = (typeof CSV_IN)[number]
