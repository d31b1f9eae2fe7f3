import type { Measures, Ranked, Weights } from '@ypsometer/core/advice/score'
import { useEffect, useState } from 'react'
import { errorMessage } from '../api/errorMessage'
import { calledBack, rankRemote } from './rankRemote'

/** A ranking as it is drawn: how far it is, what came of it, or why nothing did. */
export interface Ranking {
  readonly ranked: Ranked | null
  /** Share done; null while nothing is drawn. */
  readonly progress: number | null
  readonly failure: string | null
  readonly stop: () => void
}

/** So long the question must stand still before it is drawn (ms). */
const STILL = 150

/** How sure a ranking is, drawn in a worker; `key` names the question, so that the same is not drawn again. */
export function useRanking(options: readonly Measures[], weights: Weights, key: string): Ranking {
  const [state, setState] = useState<{ readonly key: string; readonly ranked: Ranked | null; readonly progress: number | null; readonly failure: string | null }>({ key: '', ranked: null, progress: null, failure: null }) // prettier-ignore
  useEffect(() => {
    if (!options.length) return
    let over = false
    const show = (more: Partial<Ranking>): void => {
      if (!over) setState({ key, ranked: null, progress: null, failure: null, ...more })
    }
    /** Progress comes by a way of its own: some of it later than the end. */
    const end = (more: Partial<Ranking>): void => {
      show(more)
      over = true
    }
    const timer = setTimeout(() => {
      show({ progress: 0 })
      rankRemote()
        .rank(
          options,
          weights,
          calledBack((progress: number) => show({ progress })),
        )
        .then(
          (ranked) => end({ ranked }),
          (error: unknown) => end({ failure: errorMessage(error) }),
        )
    }, STILL)
    return () => {
      over = true
      clearTimeout(timer)
    }
    // The key stands for options and weights, which are made anew at every render.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [key])
  const mine = state.key === key ? state : null
  return {
    ranked: mine?.ranked ?? null,
    progress: mine?.progress ?? null,
    failure: mine?.failure ?? null,
    stop: () => void rankRemote().stop(),
  }
}
