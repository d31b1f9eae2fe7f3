import type { Dimension } from '@ypsometer/core/units'
import { findUnit, toSI, UNITS } from '@ypsometer/core/units'
import { readCell, type Table } from './table'

/** What a column can be: its role, and the quantity its numbers are of. */
export interface Role {
  readonly id: string
  readonly label: string
  readonly dimension: Dimension
  /** Unit assumed when the header names none. */
  readonly unit: string
  /** Words in a header that mean this role. */
  readonly hints: RegExp
  readonly min: number
  readonly max: number
  readonly required?: boolean
  /** May be given to several columns, each a series of its own named by its header. */
  readonly many?: boolean
}

/** What is imported, and the columns it is made of. */
export interface Target {
  readonly id: 'runs' | 'weighed' | 'curve' | 'dye' | 'power' | 'noise'
  readonly label: string
  readonly roles: readonly Role[]
}

const role = (
  id: string,
  label: string,
  dimension: Dimension,
  unit: string,
  hints: RegExp,
  [min, max]: readonly [number, number],
  more: Partial<Role> = { required: true },
): Role => ({ id, label, dimension, unit, hints, min, max, ...more })

const TIME = role('time', 'Time', 'time', 's', /time|zeit|temps|tempo|sec|min|^t\b/i, [0, 1e7])

export const TARGETS: readonly Target[] = [
  {
    id: 'runs',
    label: 'Timed runs of a vessel',
    roles: [
      role('volume', 'Volume', 'volume', 'L', /vol|lit|vessel|gal|eimer/i, [1e-6, 10]),
      role('seconds', 'Seconds', 'time', 's', /sec|time|zeit|dur|^t\b|^s\b/i, [0.5, 1e6]),
    ],
  },
  {
    id: 'weighed',
    label: 'Weighed runs',
    roles: [
      role('mass', 'Mass', 'mass', 'kg', /mass|weight|kg|gewicht|scale/i, [1e-4, 1000]),
      role('seconds', 'Seconds', 'time', 's', /sec|time|zeit|dur|^t\b|^s\b/i, [0.5, 1e6]),
    ],
  },
  {
    id: 'curve',
    label: 'Points of a head–flow curve',
    roles: [
      role('head', 'Head', 'head', 'm', /head|lift|h[öo]he|hauteur|^h\b|^m\b/i, [0, 20]),
      role('flow', 'Flow', 'flow', 'L/h', /flow|debit|durchfluss|l\/h|gph|^q\b/i, [0, 1]),
    ],
  },
  {
    id: 'dye',
    label: 'Dye against time, a column a point',
    roles: [
      TIME,
      role('value', 'Strength at a point', 'ratio', '', /./, [0, 1e9], { required: true, many: true }),
    ],
  },
  {
    id: 'power',
    label: 'A log of watts',
    roles: [TIME, role('value', 'Watts', 'power', 'W', /watt|power|leistung|^w\b|^p\b/i, [0, 5000])],
  },
  {
    id: 'noise',
    label: 'A log of sound levels',
    roles: [TIME, role('value', 'Level', 'sound', 'dB', /level|noise|db|pegel|^l\b/i, [0, 140])],
  },
]

/** What each column is taken for: a role and a unit, or nothing. */
export type Mapping = readonly ({ readonly role: string; readonly unit: string } | null)[]

/** Units a column of this quantity may be in. */
export const unitsOf = (d: Dimension): readonly string[] => UNITS[d].map((u) => u.symbol)

/** The unit a header names, in brackets or after a comma; else the role's own. */
function unitIn(header: string, r: Role): string {
  const named = /[[(]\s*([^\])]+?)\s*[\])]|,\s*([^,]+)$/.exec(header)
  const text = (named?.[1] ?? named?.[2] ?? '').trim()
  return (text && findUnit(text, r.dimension)?.symbol) || r.unit
}

/** A first guess of what each column is: by its header, else by its place. */
export function guessMapping(table: Table, target: Target): Mapping {
  const width = Math.max(0, ...table.rows.map((r) => r.cells.length), table.header?.length ?? 0)
  const taken = new Set<string>()
  const guess = Array.from({ length: width }, (_, i): Mapping[number] => {
    const header = table.header?.[i] ?? ''
    const fit = target.roles.find((r) => !r.many && !taken.has(r.id) && header && r.hints.test(header))
    if (!fit) return null
    taken.add(fit.id)
    return { role: fit.id, unit: unitIn(header, fit) }
  })
  return guess.map((g, i) => {
    if (g) return g
    const rest = target.roles.find((r) => !taken.has(r.id) || r.many)
    if (!rest) return null
    taken.add(rest.id)
    return { role: rest.id, unit: unitIn(table.header?.[i] ?? '', rest) }
  })
}

/** A row that cannot be taken: its line in the text, the column, and what would be accepted. */
export interface BadCell {
  readonly line: number
  readonly column: string
  readonly message: string
}

/** Columns of numbers in SI by role; `many` roles by their header. Rows with an empty cell in a series are gaps there. */
export interface Taken {
  readonly rows: readonly Readonly<Record<string, number>>[]
  readonly series: readonly { readonly name: string; readonly times: number[]; readonly values: number[] }[]
  readonly gaps: number
  readonly bad: readonly BadCell[]
  /** What the mapping itself lacks, or null. */
  readonly problem: string | null
}

/** Reads a table by a mapping. Nothing is left out in silence: what cannot be read is in `bad`, by line. */
export function takeTable(table: Table, mapping: Mapping, target: Target): Taken {
  const missing = target.roles.filter((r) => r.required && !mapping.some((m) => m?.role === r.id))
  const doubled = target.roles.find((r) => !r.many && mapping.filter((m) => m?.role === r.id).length > 1)
  const problem = missing.length
    ? `No column is ${missing.map((r) => r.label.toLowerCase()).join(' or ')} yet: choose one above the table.`
    : doubled
      ? `Two columns are ${doubled.label.toLowerCase()}: only one can be.`
      : !table.rows.length
        ? 'There are no rows with numbers.'
        : null
  const empty: Taken = { rows: [], series: [], gaps: 0, bad: [], problem }
  if (problem) return empty
  const bad: BadCell[] = []
  const rows: Record<string, number>[] = []
  const many = target.roles.find((r) => r.many)
  const series = mapping.flatMap((m, i) =>
    many && m?.role === many.id
      ? [
          {
            column: i,
            name: (table.header?.[i] ?? `Point ${i}`).slice(0, 40),
            times: [] as number[],
            values: [] as number[],
          },
        ]
      : [],
  )
  let gaps = 0
  let before = -Infinity
  for (const { line, cells } of table.rows) {
    const row: Record<string, number> = {}
    let good = true
    const say = (column: string, message: string): void => {
      bad.push({ line, column, message })
      good = false
    }
    mapping.forEach((m, i) => {
      const r = m && target.roles.find((x) => x.id === m.role)
      if (!m || !r) return
      const name = table.header?.[i] || r.label
      const text = cells[i] ?? ''
      if (r.many && text.trim() === '') {
        gaps++
        return
      }
      const si = convert(text, m.unit, r, table.decimal)
      if (Number.isNaN(si))
        say(name, text.trim() === '' ? 'is empty; a number is needed' : `“${text.slice(0, 24)}” is no number`)
      else if (si < r.min || si > r.max)
        say(
          name,
          `${text} ${m.unit} is out of range: from ${show(r.min, m.unit, r)} to ${show(r.max, m.unit, r)}`,
        )
      else if (r.many) row[`#${i}`] = si
      else row[r.id] = si
    })
    if (good && 'time' in row) {
      if ((row.time ?? 0) <= before) say('Time', 'is not later than the row before')
      else before = row.time ?? before
    }
    if (!good) continue
    rows.push(row)
    for (const s of series) {
      const v = row[`#${s.column}`]
      if (v === undefined) continue
      s.times.push(row.time ?? 0)
      s.values.push(v)
    }
  }
  return { rows, series: series.filter((s) => s.values.length), gaps, bad, problem: null }
}

function convert(text: string, unit: string, r: Role, decimal: '.' | ','): number {
  const u = UNITS[r.dimension].find((x) => x.symbol === unit) ?? UNITS[r.dimension][0]
  const v = readCell(text, decimal)
  return u ? toSI(v, u) : NaN
}

function show(si: number, unit: string, r: Role): string {
  const u = UNITS[r.dimension].find((x) => x.symbol === unit)
  return `${Number((si / (u?.factor ?? 1)).toPrecision(3))} ${unit}`.trim()
}
