import { putFigure, inline, type Figure, type Sentence } from '../figures'
import { capacityFigure, capacityInput, capacityOf } from '../tanks'
import type { JudgedFill } from './fills'
import { nothingRunning, ruleBesideBalance, type Left } from './redundancy'
import { tankBalance } from './tankBalance'
import { balanceWords, type TankBalance } from './balanceWords'
import type { TankRecord } from '../tanks/tankRecord'

/** A filter that runs on a tank, by its name and the fill it has in it. */
export interface RunningFilter {
  readonly name: string
  readonly fill: JudgedFill
  /** Largest tank its label claims (m³), for houses that go by oversizing. */
  readonly claimedMax?: number | null
}

/** Capacity of one filter of a tank; `blind` where only its flow is known, which says at most how much. */
interface Carrying {
  readonly name: string
  readonly carries: Figure
  readonly blind: boolean
}

/** Capacity of all filters of a tank together, and what is left with one of them open. */
export interface Together {
  readonly each: readonly Carrying[]
  /** Of such stock all of them carry (m³), those left out of which only the flow is known; null where that is all. */
  readonly carries: Figure | null
  readonly balance: TankBalance | null
  readonly without: readonly {
    readonly name: string
    readonly carries: Figure | null
    readonly balance: TankBalance | null
  }[]
  readonly sentences: readonly Left[]
}

/**
 * Tank litres that several filters carry: the sum of what each does by the house’s leading school. Their bands are of
 * the same rules, so they add and do not average out.
 */
export const sumCarried = (id: string, all: readonly Figure[]): Figure => ({
  id: `carries-together-${id}`,
  label: 'Supported together',
  value: all.reduce((sum, f) => sum + f.value, 0),
  uncertainty: all.reduce((sum, f) => sum + (f.uncertainty ?? 0), 0),
  dimension: 'volume',
  provenance: all.every((f) => f.provenance === 'computed') ? 'computed' : 'rule',
  formula: 'Σ of what each supports; uncertainties add',
  working: all.map((f, i) => putFigure(`V_${i + 1}`, f)),
})

/**
 * The filters of a tank beside each other: what they carry, the tank’s balance with all of them, and with each of them
 * open for service. Null while none of them has a known flow.
 * @throws OutOfRange naming a field of the tank.
 */
export function together(tank: TankRecord, running: readonly RunningFilter[]): Together | null {
  if (!running.length) return null
  const each = running.map(({ name, fill, claimedMax = null }): Carrying => ({
    name,
    carries: capacityFigure(fill, tank.stock, claimedMax),
    blind: capacityOf(capacityInput(fill, claimedMax), tank.stock).atMost,
  }))
  const summed = (id: string, list: readonly Carrying[]): Figure | null => {
    const seen = list.filter((e) => !e.blind).map((e) => e.carries)
    return seen.length ? sumCarried(id, seen) : null
  }
  const balanced = (list: readonly RunningFilter[]): TankBalance | null =>
    tankBalance(tank, ...list.map((r) => r.fill))
  const without = running.map(({ name }, i) => {
    const rest = running.filter((_, j) => j !== i)
    const left = each.filter((_, j) => j !== i)
    return { name, carries: summed(`without-${i}`, left), balance: balanced(rest) }
  })
  const found = { each, carries: summed('all', each), balance: balanced(running), without }
  return { ...found, sentences: sentencesOf(tank, found) }
}

function sentencesOf(
  tank: TankRecord,
  { each, carries, balance, without }: Omit<Together, 'sentences'>,
): readonly Left[] {
  const water = tank.water.value
  const out: Left[] = []
  const add = (tone: Left['tone'], ...sentence: Sentence): void => void out.push({ tone, sentence })
  if (carries) {
    const enough = carries.value >= water
    add(
      enough ? 'note' : 'caution',
      enough ? 'Enough: ' : 'Too small: ',
      each.filter((e) => !e.blind).length > 1 ? 'together they support ' : 'it supports ',
      inline(carries),
      ' at this stocking; the tank is ',
      inline(tank.water),
      '.',
    )
  }
  for (const { name, carries: most, blind } of each)
    if (blind)
      add(
        most.value < water ? 'caution' : 'note',
        `${name}: not counted, its media are not recorded. By flow alone at most `,
        inline(most),
        '.',
      )
  if (without.length < 2)
    add('caution', 'No filtration while it is open. Keep it short, or add a second filter.')
  else
    for (const w of without) {
      const left = w.carries && w.carries.value >= water
      add(
        left ? 'note' : 'caution',
        `While ${w.name} is open: `,
        ...(w.carries
          ? [left ? 'enough, the rest supports ' : 'not enough, the rest supports ', inline(w.carries), '.']
          : ['unknown whether the other filter is enough.']),
        ...(w.balance ? [' Water forecast: ', ...balanceWords(w.balance), '.'] : []),
      )
    }
  return [...out, ...(carries ? ruleBesideBalance(tank, carries, balance) : []), ...nothingRunning(balance)]
}
