import type { Dimension } from '@ypsometer/core/units/dimensions'
import { findUnit, toSI, UNITS } from '@ypsometer/core/units/dimensions'
import { readCell, type Table } from '@ypsometer/contract/csv'
import type { Role, Target } from './target'

export type { Target } from './target'

/** Role of each column with its unit, or nothing. */
export type Mapping = readonly ({ readonly role: string; readonly unit: string } | null)[]

/** Units a column of this quantity may be in. */
export const unitsOf = (d: Dimension): readonly string[] => UNITS[d].map((u) => u.symbol)

/** The unit a header names, in brackets or after a comma; else the role's own. */
function unitIn(header: string, r: Role): string {
  const named = /[[(]\s*([^\])]+?)\s*[\])]|,\s*([^,]+)$/.exec(header)
  const text = (named?.[1] ?? named?.[2] ?? '').trim()
  return (text && findUnit(text, r.dimension)?.symbol) || r.unit
}

/**
 * A first guess of what each column is: by its heading. A heading that is not understood leaves its column open; only a
 * table without headings is guessed by place.
 */
export function guessMapping(table: Table, target: Target): Mapping {
  const width = Math.max(0, ...table.rows.map((r) => r.cells.length), table.header?.length ?? 0)
  const taken = new Set<string>()
  const take = (r: Role, header: string): Mapping[number] => {
    taken.add(r.id)
    return { role: r.id, unit: unitIn(header, r) }
  }
  const guess = Array.from({ length: width }, (_, i): Mapping[number] => {
    const header = table.header?.[i] ?? ''
    const fit = target.roles.find((r) => !r.many && !taken.has(r.id) && header && r.hints.test(header))
    return fit ? take(fit, header) : null
  })
  return guess.map((g, i) => {
    if (g) return g
    const header = table.header?.[i] ?? ''
    const rest = target.roles.find((r) => r.many || (!table.header && !taken.has(r.id)))
    return rest ? take(rest, header) : null
  })
}

/** A row that cannot be taken: its line in the text, the column, and what would be accepted. */
export interface BadCell {
  readonly line: number
  readonly column: string
  readonly message: string
}

/**
 * Columns of numbers in SI by role; `many` roles by their header. Rows with an empty cell in a series are gaps there.
 */
export interface Taken {
  readonly rows: readonly Readonly<Record<string, number>>[]
  readonly series: readonly { readonly name: string; readonly times: number[]; readonly values: number[] }[]
  readonly gaps: number
  readonly bad: readonly BadCell[]
  /** Gap of the mapping itself, or null. */
  readonly problem: string | null
}

/** Reads a table by a mapping. Nothing is left out in silence: what cannot be read is in `bad`, by line. */
export function takeTable(table: Table, mapping: Mapping, target: Target): Taken {
  const missing = target.roles.filter((r) => r.required && !mapping.some((m) => m?.role === r.id))
  const doubled = target.roles.find((r) => !r.many && mapping.filter((m) => m?.role === r.id).length > 1)
  let problem: string | null = null
  if (missing.length)
    problem = `No column is ${missing.map((r) => r.label.toLowerCase()).join(' or ')} yet: choose one above the table.`
  else if (doubled) problem = `Two columns are ${doubled.label.toLowerCase()}: only one can be.`
  else if (!table.rows.length) problem = 'There are no rows with numbers.'
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
      if (!r.required && text.trim() === '') return
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
