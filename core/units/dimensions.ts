/** The kinds of quantity that people type or read. Each is held in SI. */
export type Dimension =
  | 'length'
  | 'head'
  | 'volume'
  | 'flow'
  | 'mass'
  | 'concentration'
  | 'feed'
  | 'feeding'
  | 'area'
  | 'power'
  | 'time'
  | 'temperature'
  | 'frequency'
  | 'velocity'
  | 'sound'
  | 'voltage'
  | 'ratio'

export type UnitSystem = 'metric' | 'us' | 'imperial'

/** A unit: SI = value × factor + offset. */
export interface Unit {
  readonly symbol: string
  readonly factor: number
  readonly offset?: number
  readonly aliases: readonly string[]
  /** The smaller unit that a bare second number means: "6 ft 2" is 6 feet 2 inches. */
  readonly next?: string
}

// Exact by definition: international foot, inch, pound (1959); US gallon 231 in³; imperial gallon 4.546 09 L.
const FOOT = 0.3048
const INCH = 0.0254
const POUND = 0.45359237
const DAY = 86400
const US_GALLON = 3.785411784e-3
const IMPERIAL_GALLON = 4.54609e-3

const u = (symbol: string, factor: number, ...aliases: string[]): Unit => ({ symbol, factor, aliases })
const usGal = ['us gal', 'us gallon', 'us gallons', 'usgal']
const impGal = ['imp gal', 'uk gal', 'imperial gallon', 'imperial gallons', 'impgal']

/** Every unit that is understood, by dimension. The first of each list is the SI or everyday metric one. */
export const UNITS: Readonly<Record<Dimension, readonly Unit[]>> = {
  length: [
    u('mm', 1e-3, 'millimetre', 'millimetres', 'millimeter', 'millimeters'),
    u('cm', 1e-2, 'centimetre', 'centimetres', 'centimeter', 'centimeters'),
    u('m', 1, 'metre', 'metres', 'meter', 'meters'),
    u('in', INCH, 'inch', 'inches', '"', '″'),
    { ...u('ft', FOOT, 'foot', 'feet', "'", '′'), next: 'in' },
  ],
  head: [
    u('m', 1, 'metre', 'metres', 'meter', 'meters', 'mh2o', 'm h2o'),
    u('cm', 1e-2, 'centimetre', 'centimetres'),
    u('mm', 1e-3),
    { ...u('ft', FOOT, 'foot', 'feet', "'", '′'), next: 'in' },
    u('in', INCH, 'inch', 'inches', '"', '″'),
  ],
  volume: [
    u('L', 1e-3, 'l', 'litre', 'litres', 'liter', 'liters'),
    u('mL', 1e-6, 'ml'),
    u('m³', 1, 'm3'),
    u('US gal', US_GALLON, ...usGal),
    u('imp gal', IMPERIAL_GALLON, ...impGal),
  ],
  flow: [
    u('L/h', 1e-3 / 3600, 'l/h', 'lph', 'l/hr', 'litres/h', 'litres per hour', 'l per hour'),
    u('L/min', 1e-3 / 60, 'l/min', 'lpm', 'litres per minute'),
    u('L/s', 1e-3, 'l/s'),
    u('m³/h', 1 / 3600, 'm3/h'),
    u('m³/s', 1, 'm3/s'),
    u('US gal/h', US_GALLON / 3600, 'us gph', ...usGal.map((g) => `${g}/h`)),
    u('imp gal/h', IMPERIAL_GALLON / 3600, 'imp gph', 'uk gph', ...impGal.map((g) => `${g}/h`)),
    u('US gal/min', US_GALLON / 60, 'us gpm'),
  ],
  mass: [
    u('kg', 1, 'kilogram', 'kilograms', 'kilo', 'kilos'),
    u('g', 1e-3, 'gram', 'grams'),
    u('lb', POUND, 'lbs', 'pound', 'pounds'),
    u('oz', POUND / 16, 'ounce', 'ounces'),
  ],
  concentration: [u('mg/L', 1e-3, 'mg/l', 'ppm', 'milligrams per litre'), u('kg/m³', 1, 'kg/m3', 'g/l')],
  // SI: kg/s, kg/m³/s.
  feed: [
    u('g/d', 1e-3 / DAY, 'g', 'g/day', 'g a day', 'grams a day'),
    u('mg/d', 1e-6 / DAY, 'mg/day', 'mg a day'),
    u('oz/d', POUND / 16 / DAY, 'oz/day', 'oz a day'),
  ],
  feeding: [u('mg/L/d', 1e-3 / DAY, 'mg/l/d', 'mg/l a day')],
  area: [u('cm²', 1e-4, 'cm2', 'sq cm'), u('m²', 1, 'm2', 'sq m'), u('in²', INCH ** 2, 'in2', 'sq in')],
  power: [u('W', 1, 'w', 'watt', 'watts'), u('kW', 1000, 'kw')],
  time: [
    u('s', 1, 'sec', 'secs', 'second', 'seconds'),
    u('ms', 1e-3),
    u('min', 60, 'minute', 'minutes'),
    u('h', 3600, 'hr', 'hour', 'hours'),
    u('days', 86400, 'd', 'day'),
  ],
  temperature: [
    { ...u('°C', 1, 'c', 'degc', '° c'), offset: 0 },
    { ...u('°F', 5 / 9, 'f', 'degf', '° f'), offset: -160 / 9 },
  ],
  frequency: [u('Hz', 1, 'hz', 'hertz')],
  velocity: [u('m/s', 1), u('cm/s', 1e-2), u('ft/s', FOOT, 'fps')],
  sound: [u('dB', 1, 'db', 'db(a)', 'dba')],
  voltage: [u('V', 1, 'v', 'volt', 'volts')],
  ratio: [u('', 1), u('%', 0.01, 'percent', 'per cent')],
}

/** The unit shown and assumed for a bare number, by dimension and system. */
export const PREFERRED: Readonly<Record<Dimension, Readonly<Record<UnitSystem, string>>>> = {
  length: { metric: 'cm', us: 'in', imperial: 'in' },
  head: { metric: 'm', us: 'ft', imperial: 'ft' },
  volume: { metric: 'L', us: 'US gal', imperial: 'imp gal' },
  flow: { metric: 'L/h', us: 'US gal/h', imperial: 'imp gal/h' },
  mass: { metric: 'kg', us: 'lb', imperial: 'lb' },
  concentration: { metric: 'mg/L', us: 'mg/L', imperial: 'mg/L' },
  feed: { metric: 'g/d', us: 'g/d', imperial: 'g/d' },
  feeding: { metric: 'mg/L/d', us: 'mg/L/d', imperial: 'mg/L/d' },
  area: { metric: 'cm²', us: 'in²', imperial: 'in²' },
  power: { metric: 'W', us: 'W', imperial: 'W' },
  time: { metric: 's', us: 's', imperial: 's' },
  temperature: { metric: '°C', us: '°F', imperial: '°C' },
  frequency: { metric: 'Hz', us: 'Hz', imperial: 'Hz' },
  velocity: { metric: 'm/s', us: 'ft/s', imperial: 'ft/s' },
  sound: { metric: 'dB', us: 'dB', imperial: 'dB' },
  voltage: { metric: 'V', us: 'V', imperial: 'V' },
  ratio: { metric: '', us: '', imperial: '' },
}

/** Words that mean another unit in each system: a "gallon" is not one thing. */
const BY_SYSTEM: Readonly<Record<string, Readonly<Record<UnitSystem, string>>>> = {
  gal: { metric: 'US gal', us: 'US gal', imperial: 'imp gal' },
  gallon: { metric: 'US gal', us: 'US gal', imperial: 'imp gal' },
  gallons: { metric: 'US gal', us: 'US gal', imperial: 'imp gal' },
  gph: { metric: 'US gal/h', us: 'US gal/h', imperial: 'imp gal/h' },
  'gal/h': { metric: 'US gal/h', us: 'US gal/h', imperial: 'imp gal/h' },
  'gal/hr': { metric: 'US gal/h', us: 'US gal/h', imperial: 'imp gal/h' },
  gpm: { metric: 'US gal/min', us: 'US gal/min', imperial: 'US gal/min' },
}

/** The unit that `name` means for a dimension, or undefined. Case matters only where two units differ by it. */
export function findUnit(
  name: string,
  dimension: Dimension,
  system: UnitSystem = 'metric',
): Unit | undefined {
  const exact = UNITS[dimension].find((x) => x.symbol === name)
  if (exact) return exact
  const low = name.toLowerCase().replace(/\s+/g, ' ').replace(/\.$/, '').trim()
  const told = BY_SYSTEM[low]?.[system]
  return UNITS[dimension].find(
    (x) => x.symbol === told || x.symbol.toLowerCase() === low || x.aliases.includes(low),
  )
}

/** The unit shown for a dimension in a system. */
export function preferredUnit(dimension: Dimension, system: UnitSystem): Unit {
  const unit = findUnit(PREFERRED[dimension][system], dimension, system)
  if (!unit) throw new Error(`no unit for ${dimension}`)
  return unit
}

/** SI value of `value` in `unit`. */
export const toSI = (value: number, unit: Unit): number => value * unit.factor + (unit.offset ?? 0)

/** Value in `unit` of an SI `value`. */
export const fromSI = (value: number, unit: Unit): number => (value - (unit.offset ?? 0)) / unit.factor
