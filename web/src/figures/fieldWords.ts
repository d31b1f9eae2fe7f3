import type { Change, ResourceName } from '@ypsometer/contract'
import { OUTLINE } from '@ypsometer/contract/outline'
import { CLAIM_LIMITS, type ClaimQuantity } from '@ypsometer/core/trials/records'
import { moneyText } from '@ypsometer/core/units/money'
import { showQuantity, trimZeros } from '@ypsometer/core/units/format'
import type { Dimension, UnitSystem } from '@ypsometer/core/units/dimensions'
import { showDay } from '../settings/when'

const ACTION_WORDS: Readonly<Record<Change['action'], string>> = {
  made: 'added',
  changed: 'changed',
  deleted: 'deleted',
  restored: 'restored',
}

const DIMENSIONS: Readonly<Record<string, Dimension>> = {
  m: 'length',
  'm²': 'area',
  'm³': 'volume',
  'm³/s': 'flow',
  kg: 'mass',
  'kg/m³': 'concentration',
  'm/s': 'velocity',
  W: 'power',
  s: 'time',
  '°C': 'temperature',
}

const isResource = (name: string): name is ResourceName => name in OUTLINE

/** Fields whose names in the record are not what they are called on screen. */
const FIELD_WORDS: Readonly<Record<string, string>> = {
  school: 'layering rule',
  capacity: 'sizing rules',
  upkeep: 'maintenance',
  shipped: 'ships with the app',
  stockClassId: 'stocking',
  hookupId: 'plumbing',
  fillId: 'media setup',
  kinId: 'same body as',
  kinship: 'what they share',
  segments: 'hoses and fittings',
  fitted: 'outlets and inlet',
  lift: 'height of the outlet',
  seeping: 'drips',
  moves: 'hand movements',
  back: 'way back in',
  errata: 'corrections of the label',
  outReason: 'reason it is excluded',
  specimenId: 'unit',
  ticked: 'steps done',
  usableHeight: 'fill height',
  rim: 'clearance at the rim',
  use: 'what it is for',
  old: 'old filter',
  next: 'new filter',
  buy: 'would you buy it',
}

/** “outletAboveWater” as it is read: outlet above water. */
export const fieldWords = (field: string): string =>
  FIELD_WORDS[field] ??
  field
    .replace(/(Id|Minor)$/, '')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase()

/** Subjects of the history besides rows of the record: who may do what with it. */
const NOT_ROWS: Readonly<Record<string, string>> = { people: 'person', shares: 'link to a review' }

/** Name of one row of a kind. */
export const oneOf = (resource: string): string =>
  isResource(resource) ? OUTLINE[resource].singular : (NOT_ROWS[resource] ?? resource)

/** Deeds on those, in a person's words. */
const DONE: Readonly<Record<string, Partial<Record<Change['action'], string>>>> = {
  people: { made: 'invited', deleted: 'removed' },
  shares: { made: 'shared', deleted: 'revoked' },
}
/** “changed claim”, “invited person”: what a change did, to one of what. */
export const doneTo = (action: Change['action'], resource: string): string =>
  `${DONE[resource]?.[action] ?? ACTION_WORDS[action]} ${oneOf(resource)}`

/** The unit a number of a field is in, from the contract; a claim’s is that of its quantity, which is its name. */
function fieldUnit(resource: string, field: string, called: string): string | undefined {
  if (resource === 'claims' && field === 'value') return CLAIM_LIMITS[called as ClaimQuantity]?.unit
  if (!isResource(resource)) return undefined
  return OUTLINE[resource].fields[field] ?? undefined
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-/
const LONGEST = 160
const short = (text: string): string => (text.length > LONGEST ? `${text.slice(0, LONGEST)} …` : text)

function showNumber(
  value: number,
  resource: string,
  field: string,
  system: UnitSystem,
  called: string,
): string {
  const unit = fieldUnit(resource, field, called)
  const dimension = unit === undefined ? undefined : DIMENSIONS[unit]
  if (dimension) {
    const s = showQuantity(value, dimension, system, 4)
    return `${trimZeros(s.number)} ${s.unit}`
  }
  const plain = String(Number(value.toPrecision(6)))
  return unit && !unit.startsWith('(') ? `${plain} ${unit}` : plain
}

/** Name of an item of a list, where it has one of its own. */
const itemName = (item: unknown): string => {
  if (item === null || typeof item !== 'object') return String(item)
  const { label, name, kind } = item as Readonly<Record<string, unknown>>
  return String(label || name || kind || 'one')
}
const counted = (list: readonly unknown[]): string => {
  const names = list.map(itemName)
  const all = names.every((n) => n === 'one') ? '' : `: ${names.slice(0, 6).join(', ')}`
  return `${list.length}${all}${names.length > 6 ? ' …' : ''}`
}

/**
 * A value of a field as it is read, in the reader’s units; as it was typed, where that is known. `called` is the name
 * of its row.
 */
export function showField(
  resource: string,
  field: string,
  side: Readonly<Record<string, unknown>>,
  system: UnitSystem,
  called = '',
): string {
  const value = side[field]
  const typed = (side.typed as Readonly<Record<string, string>> | undefined)?.[field]
  if (typed) return short(typed)
  if (value === null || value === undefined || value === '') return 'nothing'
  if (typeof value === 'number' && field.endsWith('Minor'))
    return typeof side.currency === 'string' ? moneyText(value, side.currency) : (value / 100).toFixed(2)
  if (typeof value === 'number') return showNumber(value, resource, field, system, called)
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (typeof value === 'string') {
    if (UUID.test(value)) return 'another one'
    return /^\d{4}-\d\d-\d\d$/.test(value) ? showDay(value) : short(value)
  }
  if (Array.isArray(value)) return value.length ? counted(value) : 'none'
  return short(
    Object.entries(value)
      .map(([k, v]) => `${fieldWords(k)} ${typeof v === 'object' ? '…' : String(v)}`)
      .join(', ') || 'nothing',
  )
}

/** The fields of a change that a person reads of. */
export const fieldsOf = (c: Change): readonly string[] =>
  Object.keys({ ...c.before, ...c.after }).filter((f) => f !== 'typed')
