import type { Here, Presence } from '@ypsometer/contract'
import { useEffect } from 'react'
import { makeStore } from '../settings/store'
import { api, PAGE } from './client'

/** How often a page says that it is still there (ms), and how long it is believed after it last did. */
const BEAT = 20_000
const BELIEVED = 50_000

interface Known extends Here {
  readonly at: string | null
  readonly until: number
}

const known = makeStore<ReadonlyMap<string, Known>>(new Map())
let answer: ((hello?: boolean) => void) | null = null

/** Others are listened to from now on: they are asked where they are. */
export const greet = (): void => answer?.(true)

/** Those that have said within the time that they are there. */
const living = (): Map<string, Known> => new Map([...known.get()].filter(([, k]) => k.until > Date.now()))

/** Takes note of where another page is, and answers one that has just come. */
export function noteHere(here: Here): void {
  if (here.page === PAGE) return
  const next = living()
  if (here.at === null) next.delete(here.page)
  else {
    next.set(here.page, { ...here, until: Date.now() + BELIEVED })
    // One that was cut off says nothing more.
    setTimeout(() => known.set(living()), BELIEVED)
  }
  known.set(next)
  if (here.hello) answer?.()
}

/** The row and field that the cursor is in, as its field says. */
function cursor(): Pick<Presence, 'row' | 'field'> {
  const field = document.activeElement?.closest<HTMLElement>('[data-field]')
  return { row: field?.dataset.row ?? null, field: field?.dataset.field ?? null }
}

/** Tells the others that this page is at a model or tank, and where in it, for as long as it is. */
export function usePresence(at: string): void {
  useEffect(() => {
    let last = ''
    const say = (body: Presence): void => {
      last = JSON.stringify([body.row, body.field])
      // Nobody is kept from working because it could not be said where they are.
      api('/presence', { method: 'POST', body }).catch(() => undefined)
    }
    const here = (hello = false): void => say({ page: PAGE, at, ...cursor(), hello })
    const moved = (): void => {
      const { row, field } = cursor()
      if (JSON.stringify([row, field]) !== last) here()
    }
    // Leaving one field for the next is one move.
    let timer: ReturnType<typeof setTimeout> | undefined
    const soon = (): void => {
      clearTimeout(timer)
      timer = setTimeout(moved, 150)
    }
    const beat = setInterval(() => document.hidden || here(), BEAT)
    const away = (): void => say({ page: PAGE, at: null, row: null, field: null, hello: false })
    const shown = (): void => (document.hidden ? away() : here(true))
    answer = here
    here(true)
    document.addEventListener('focusin', soon)
    document.addEventListener('focusout', soon)
    document.addEventListener('visibilitychange', shown)
    return () => {
      answer = null
      clearInterval(beat)
      clearTimeout(timer)
      document.removeEventListener('focusin', soon)
      document.removeEventListener('focusout', soon)
      document.removeEventListener('visibilitychange', shown)
      away()
    }
  }, [at])
}

/** Who else is at a model or tank, and where in it. */
export const useOthersAt = (at: string): readonly Here[] =>
  [...known.use().values()].filter((k) => k.at === at)
/** Who else has the cursor in a field of a row. */
export const useOtherIn = (row: string, field: string): string | null =>
  [...known.use().values()].find((k) => k.row === row && k.field === field)?.who.name ?? null
