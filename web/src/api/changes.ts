import type { Here, Me } from '@ypsometer/contract'
import type { QueryClient } from '@tanstack/react-query'
import { PAGE } from './client'
import { greet, noteHere } from './presence'
import { WORKED_WITH } from './cache'

/** How long changes are gathered before anything is read again (ms). */
const GATHER = 300

interface Change {
  readonly model?: string
  readonly list?: string
  readonly all?: true
  /** The page that wrote it. */
  readonly by?: string | null
  /** Where another page is; no change. */
  readonly here?: Here
}

/** Pause before a stream that was refused is asked for again (ms). */
const FOLLOW_AGAIN = 5000

/** As long as it is not known that nobody is signed in. */
const isIn = (client: QueryClient): boolean => client.getQueryData<Me>(['me'])?.person !== null

/** The cached answers that a change makes old. */
const touches = ({ model, list, all }: Change, key: readonly unknown[]): boolean =>
  all === true ||
  (model !== undefined &&
    (['shelf', 'candidates', 'kept-filters', 'history'].includes(String(key[0])) ||
      (key[0] === 'dossier' && key[1] === model))) ||
  (list !== undefined &&
    (key[0] === list ||
      (key[0] === 'me' && list === 'people') ||
      key[0] === 'history' ||
      (key[0] === 'kept-filters' && (list === 'tanks' || WORKED_WITH.includes(list))) ||
      (key[0] === 'candidates' && WORKED_WITH.includes(list))))

/**
 * Reads again what others have written, as the server tells of it; the browser itself connects again after a gap. A
 * page that nobody looks at listens to nothing: a browser keeps few connections open for all its pages together.
 * Returns what stops it.
 */
export function followChanges(client: QueryClient): () => void {
  if (typeof EventSource === 'undefined') return () => undefined
  let source: EventSource | null = null
  let gathered: Change[] = []
  let timer: ReturnType<typeof setTimeout> | undefined
  let again: ReturnType<typeof setTimeout> | undefined
  let missed = false
  const note = (change: Change): void => {
    gathered.push(change)
    timer ??= setTimeout(() => {
      const changes = gathered
      gathered = []
      timer = undefined
      void client.invalidateQueries({ predicate: (q) => changes.some((c) => touches(c, q.queryKey)) })
    }, GATHER)
  }
  const follow = (): void => {
    source?.close()
    source = null
    clearTimeout(again)
    if (document.hidden) missed = true
    if (document.hidden || !isIn(client)) return
    source = new EventSource('/api/v1/changes')
    source.onopen = () => {
      // What was written while nobody listened is not known, nor what was asked in vain meanwhile.
      if (missed) note({ all: true })
      missed = true
      greet()
    }
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const change = JSON.parse(data) as Change
      if (change.here) noteHere(change.here)
      else if (change.by !== PAGE) note(change)
    }
    // Turned away, and not only cut off: who is here is asked anew.
    source.onerror = ({ target }) => {
      missed = true
      if ((target as EventSource).readyState !== EventSource.CLOSED) return
      void client.invalidateQueries({ queryKey: ['me'] })
      clearTimeout(again)
      again = setTimeout(follow, FOLLOW_AGAIN)
    }
  }
  let who: string | null | undefined
  const stopWatching = client.getQueryCache().subscribe(({ query }) => {
    const me = query.queryKey[0] === 'me' ? (query.state.data as Me | undefined) : undefined
    // Until it is known who is here, nobody has gone.
    if (!me) return
    const now = me.person?.id ?? null
    if (who !== undefined && who !== now) follow()
    who = now
  })
  document.addEventListener('visibilitychange', follow)
  follow()
  return () => {
    stopWatching()
    clearTimeout(again)
    document.removeEventListener('visibilitychange', follow)
    clearTimeout(timer)
    source?.close()
  }
}
