import { putFigure, sayFigure, type Figure } from '../figures'
import { capacityFigure } from '../tanks'
import type { JudgedFill } from './fills'
import { nothingRunning, type Left } from './redundancy'
import { balanceWords, tankBalance, type TankBalance } from './tankBalance'
import type { TankRecord } from './tankRecord'

/** A filter that runs on a tank, by its name and the fill it has in it. */
export interface Running {
  readonly name: string
  readonly fill: JudgedFill
}

/** What all filters of a tank come to, and what is left with one of them open. */
export interface Together {
  readonly each: readonly { readonly name: string; readonly carries: Figure }[]
  /** Of such stock all of them carry (m³). */
  readonly carries: Figure
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
  label: 'Carried together',
  value: all.reduce((sum, f) => sum + f.value, 0),
  uncertainty: all.reduce((sum, f) => sum + (f.uncertainty ?? 0), 0),
  dimension: 'volume',
  provenance: all.every((f) => f.provenance === 'computed') ? 'computed' : 'rule',
  formula: 'Σ of what each carries; bands add',
  working: all.map((f, i) => putFigure(`V_${i + 1}`, f)),
})

/**
 * The filters of a tank beside each other: what they carry, the tank’s balance with all of them, and with each of them
 * open for service. Null while none of them has a known flow.
 * @throws OutOfRange naming a field of the tank.
 */
export function together(tank: TankRecord, running: readonly Running[]): Together | null {
  if (!running.length) return null
  const each = running.map(({ name, fill }) => ({ name, carries: capacityFigure(fill, tank.stock) }))
  const carries = sumCarried(
    'all',
    each.map((e) => e.carries),
  )
  const balanced = (list: readonly Running[]): TankBalance | null =>
    tankBalance(tank, ...list.map((r) => r.fill))
  const without = running.map(({ name }, i) => {
    const rest = running.filter((_, j) => j !== i)
    const left = each.filter((_, j) => j !== i).map((e) => e.carries)
    return {
      name,
      carries: left.length ? sumCarried(`without-${i}`, left) : null,
      balance: balanced(rest),
    }
  })
  const balance = balanced(running)
  return { each, carries, balance, without, sentences: sentencesOf(tank, { carries, balance, without }) }
}

function sentencesOf(
  tank: TankRecord,
  { carries, balance, without }: Pick<Together, 'carries' | 'balance' | 'without'>,
): readonly Left[] {
  const water = tank.water.value
  const enough = carries.value >= water
  const out: Left[] = [
    {
      tone: enough ? 'note' : 'caution',
      sentence: [
        without.length > 1 ? 'Together they carry ' : 'It carries ',
        sayFigure(carries),
        ` of such stock; the tank holds `,
        sayFigure(tank.water),
        enough ? '.' : ': too little.',
      ],
    },
  ]
  if (without.length < 2)
    out.push({
      tone: 'caution',
      sentence: ['Nothing runs while it is open: keep that short, or set a second one beside it.'],
    })
  else
    for (const w of without) {
      if (!w.carries) continue
      const left = w.carries.value >= water
      out.push({
        tone: left ? 'note' : 'caution',
        sentence: [
          `With ${w.name} open, the rest carries `,
          sayFigure(w.carries),
          left ? ': enough.' : ': not all of it.',
          ...(w.balance ? [' By the balance: ', ...balanceWords(w.balance), '.'] : []),
        ],
      })
    }
  return [...out, ...nothingRunning(balance)]
}
