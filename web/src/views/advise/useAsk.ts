import type { Tank } from '@ypsometer/contract'
import { counterRule, houseOf } from '@ypsometer/contract/house'
import { tankRecord } from '@ypsometer/contract/records'
import {
  AS_ITS_CLASS,
  MANY,
  quickTank,
  TOLD_SHAPES,
  stockAsAnswered,
  type Many,
  type StockAnswers,
} from '@ypsometer/core/advice/quickTank'
import type { AdviceRule } from '@ypsometer/core/advice/rule'
import type { Standing, Wishes } from '@ypsometer/core/advice/advise'
import { CoreError } from '@ypsometer/core/errors/errors'
import type { TankRecord } from '@ypsometer/core/tanks/tankRecord'
import type { StockClass } from '@ypsometer/core/tanks/stock'
import type { TankShape } from '@ypsometer/core/tanks/volume'
import { useMemo } from 'react'
import { useAddress, type AddressChanges } from '../../frame/useAddress'
import { useHouseRules, useJudgedClasses, useTanks } from '../../api/lists'

/** Litres a tank that nobody has named starts with. */
const FIRST = 0.12
export const STANDINGS = ['outside', 'rim', 'inside', 'beneath'] as const satisfies readonly Standing[]

/** Question at the counter, as it stands in the address. */
export interface Ask {
  readonly tank: Tank | null
  readonly litres: number
  /** Its shape and sizes, where they were told; they come before the litres. */
  readonly sizes: TankShape | null
  readonly stock: StockClass | undefined
  readonly told: StockAnswers
  readonly wishes: Wishes
  readonly rule: AdviceRule
  /** The tank as judging reads it; or the sentence that says what does not fit together. */
  readonly record: TankRecord | string | null
  readonly stocks: readonly StockClass[]
  readonly tanks: readonly Tank[]
  readonly set: (changes: AddressChanges) => void
}

const number = (text: string | null): number | null => {
  const v = text === null || text === '' ? NaN : Number(text)
  return Number.isFinite(v) && v >= 0 ? v : null
}

/** A size in the address, by the name of the shape it is of. */
export const sizeKey = (name: string): string => `size-${name}`

/** The shape told, with its sizes: those not told yet are as such tanks are made. */
function toldShape(p: URLSearchParams): TankShape | null {
  const asked = p.get('shape')
  if (!asked || !Object.hasOwn(TOLD_SHAPES, asked)) return null
  const shape = TOLD_SHAPES[asked as TankShape['shape']]
  const told = Object.entries(shape).map(([k, v]) => [k, number(p.get(sizeKey(k))) ?? v])
  return Object.fromEntries(told) as TankShape
}

/** Reads the question from the address and writes taps into it: what is asked can be sent as a link. */
export function useAsk(): Ask {
  const { text, set } = useAddress()
  const { stock: stocks = [] } = useJudgedClasses()
  const { tanks = [] } = useTanks()
  const { rules } = useHouseRules()
  const rule = counterRule(rules ? houseOf(rules, null) : undefined)
  return useMemo(() => {
    const p = new URLSearchParams(text)
    const tank = tanks.find((t) => t.id === p.get('tank')) ?? null
    const litres = Math.min(20, Math.max(0.001, number(p.get('water')) ?? FIRST))
    const sizes = toldShape(p)
    const named = stocks.find((s) => s.id === (p.get('stock') ?? tank?.stockClassId))
    const stock = named ?? stocks.find((s) => s.code === 'normal') ?? stocks[0]
    const many = p.get('many')
    const planted = p.get('planted')
    const told: StockAnswers = {
      many: MANY.find((m): m is Many => m === many) ?? AS_ITS_CLASS.many,
      planted: planted === null ? null : planted === '1',
      weak: p.get('weak') === '1',
    }
    const at = (p.get('at') ?? '').split(',').filter((s) => (STANDINGS as readonly string[]).includes(s))
    const budget = number(p.get('budget'))
    const wishes: Wishes = {
      stands: at.length ? (at as Standing[]) : null,
      noise: number(p.get('noise')),
      minutes: number(p.get('work')),
      budget: budget === null ? null : { minor: budget, currency: rule.currency },
    }
    return {
      tank,
      litres,
      sizes,
      stock,
      told,
      wishes,
      rule,
      record: stock ? recordOf(tank, sizes ?? litres, stockAsAnswered(stock, told)) : null,
      stocks,
      tanks,
      set,
    }
    // What writes into the address is made anew at every render, and does the same each time.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [text, tanks, stocks, rule])
}

function recordOf(tank: Tank | null, told: number | TankShape, stock: StockClass): TankRecord | string {
  try {
    return tank ? { ...tankRecord(tank, stock), stock } : quickTank(told, stock)
  } catch (error) {
    if (error instanceof CoreError) return `The sizes of this tank do not fit together. ${error.message}`
    throw error
  }
}
