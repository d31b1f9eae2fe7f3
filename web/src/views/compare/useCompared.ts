import type { HouseRule } from '@ypsometer/contract'
import { counterRule, houseOf } from '@ypsometer/contract/house'
import type { Candidate, Price } from '@ypsometer/core/advice/candidate'
import type { CompareBy } from '@ypsometer/core/advice/compare'
import { packVolume } from '@ypsometer/core/media/medium'
import { stockKey, type StockClass } from '@ypsometer/core/tanks/stock'
import { useMemo } from 'react'
import { useAddress, type SetAddress } from '../../frame/useAddress'
import { useCandidates } from '../../api/shelf'
import { useHouseRules, useJudgedClasses, useMedia } from '../../api/lists'
import { MOST_COMPARED } from '../../settings/settings'

/** Comparison as it stands in the address: models, and by what. */
export interface Compared {
  readonly models: readonly Candidate[]
  readonly shelf: readonly Candidate[]
  readonly stocks: readonly StockClass[]
  readonly by: CompareBy | null
  /** The house rule whose money is compared in; undefined while it is read. */
  readonly house: HouseRule | undefined
  readonly error: Error | null
  readonly retry: () => void
  readonly set: SetAddress
}

const YEARS = { least: 1, most: 30 } as const

/** Reads what is compared from the address, so that it can be sent as a link. */
export function useCompared(): Compared {
  const { text, set } = useAddress()
  const { data, error, refetch } = useCandidates()
  const { stock: stocks = [] } = useJudgedClasses()
  const { rules } = useHouseRules()
  const { media } = useMedia()
  const found = useMemo(() => {
    const p = new URLSearchParams(text)
    const shelf = (data ?? []).flatMap((d) => d.candidate ?? []).sort((a, b) => a.name.localeCompare(b.name))
    const ids = [...new Set((p.get('m') ?? '').split(',').filter(Boolean))].slice(0, MOST_COMPARED)
    const models = ids.flatMap((id) => shelf.find((c) => c.id === id) ?? [])
    const stock =
      stocks.find((s) => stockKey(s) === p.get('stock')) ??
      stocks.find((s) => s.code === 'normal') ??
      stocks[0]
    const house = rules && houseOf(rules, null)
    if (!data || !stock) return { models, shelf, house, by: null }
    const years = Math.round(Number(p.get('years')))
    const rule = {
      ...counterRule(house || undefined),
      ...(years >= YEARS.least && years <= YEARS.most && { years }),
      ...(p.has('cut') && { cutFloss: p.get('cut') === '1' }),
    }
    const paid = new Map<string, Price>()
    for (const m of models) {
      const kind = p.get(`pay-${m.id}`)
      const offer = m.offers.findLast((o) => o.kind === kind)
      if (offer) paid.set(m.id, offer.price)
    }
    const floss = media?.find((m) => m.form === 'floss' && m.priceMinor !== null)
    const by: CompareBy = {
      stock,
      rule,
      refilled: p.get('with') === 'better',
      shelf: new Map(shelf.map((c) => [c.id, c])),
      prices: paid,
      floss: floss
        ? {
            name: floss.name,
            pack: packVolume(floss),
            price: floss.currency ? { minor: floss.priceMinor ?? 0, currency: floss.currency } : null,
          }
        : null,
    }
    return { models, shelf, house, by }
  }, [text, data, stocks, rules, media])
  return { ...found, stocks, error: data ? null : error, retry: () => void refetch(), set }
}
