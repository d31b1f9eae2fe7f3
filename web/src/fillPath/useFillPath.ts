import type { Fill, HouseRule } from '@ypsometer/contract'
import { usualHookup } from '@ypsometer/contract/records'
import type { FillLayer } from '@ypsometer/core/fills/place'
import type { Outcome } from '@ypsometer/core/path/outcome'
import { stockKey, type StockClass } from '@ypsometer/core/tanks/stock'
import { useMemo } from 'react'
import { useSearchParams } from 'react-router'
import { useHouseRules, useMedia } from '../api/lists'
import { usePath, type PathState } from '../workers/usePath'
import { useDossierContext } from '../frame/dossier'

export interface FillPath extends PathState {
  readonly fill: Fill | undefined
  /** The fill as it is looked at: with the layers that are in the hand. */
  readonly shown: Fill | undefined
  readonly against: Fill | undefined
  readonly hookupId: string | null
  readonly stock: StockClass | undefined
  readonly house: HouseRule | undefined
  readonly rules: readonly HouseRule[]
  readonly media: ReturnType<typeof useMedia>['media']
  /** Outcome that is drawn; while something in the fill cannot be, that of the fill without it. */
  readonly outcome: Outcome | null
  readonly choose: (what: Readonly<Record<string, string>>) => void
}

const SHOWN = ['as-shipped', 'proposed', 'variant']

/** Fills in the order of their basis, the oldest first. */
export const inOrder = (fills: readonly Fill[]): readonly Fill[] =>
  [...fills].sort(
    (a, b) => SHOWN.indexOf(a.basis) - SHOWN.indexOf(b.basis) || a.createdAt.localeCompare(b.createdAt),
  )

/**
 * The chosen fill on the chosen hookup, worked through; `layers` stands for the fill’s own while one is held in the
 * hand, `usual` for the fill where none is chosen.
 */
export function useFillPath(layers?: readonly FillLayer[] | null, usual: string | null = null): FillPath {
  const { dossier, assessment, stock: classes } = useDossierContext()
  const [params, setParams] = useSearchParams()
  const { media } = useMedia()
  const { rules, house } = useHouseRules(dossier.model.houseRuleId)
  const fills = inOrder(dossier.fills)
  const fill = fills.find((f) => f.id === (params.get('fill') ?? usual)) ?? fills[0]
  const against =
    fills.find((f) => f.id === params.get('against')) ??
    fills.find((f) => f.basis === 'as-shipped' && f !== fill)
  const hookupId = dossier.hookups.find((h) => h.id === params.get('hookup'))?.id ?? usualHookup(dossier)
  const stock = classes.find((s) => stockKey(s) === (params.get('stock') ?? 'normal')) ?? classes[0]
  const shown = useMemo(() => (fill && layers ? { ...fill, layers: [...layers] } : fill), [fill, layers])
  const path = usePath({
    dossier,
    assessment,
    media,
    house,
    stock,
    hookupId,
    fill: shown ?? null,
    against: against ?? null,
    quick: Boolean(layers),
  })
  return {
    ...path,
    fill,
    shown,
    against,
    hookupId,
    stock,
    house,
    rules: rules ?? [],
    media,
    outcome: path.answer && path.answer.kind !== 'missing' ? path.answer.outcome : null,
    choose: (what) =>
      setParams(
        (p) => {
          for (const [k, v] of Object.entries(what)) p.set(k, v)
          return p
        },
        { replace: true, preventScrollReset: true },
      ),
  }
}
