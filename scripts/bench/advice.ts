import { modelRecord, tankRecord, type Dossier, type Medium, type Tank } from '@ypsometer/contract'
import { candidateOf } from '@ypsometer/contract/candidate'
import { ADVICE_RULE } from '@ypsometer/core/advice/rule'
import { advise, NO_WISHES } from '@ypsometer/core/advice/advise'
import { explain } from '@ypsometer/core/advice/words'
import type { Candidate } from '@ypsometer/core/advice/candidate'
import type { Measures } from '@ypsometer/core/advice/score'
import { assess } from '@ypsometer/core/judging/assess'
import { GENERIC_MEDIA } from '@ypsometer/core/media/library'
import { STOCK_CLASSES, type StockClass } from '@ypsometer/core/tanks/stock'
import { demoBundle } from '@ypsometer/demo'
import { Worker } from 'node:worker_threads'

const MODELS = 100
const TAPS = 15
const COUNTER = 40
const TANKS = 12

const classOf = (id: string): StockClass => STOCK_CLASSES.find((c) => c.id === id) as StockClass

/** So many models, made of the demo’s, each with fills of its own: nothing is kept from one for another. */
export function manyCandidates(n: number): readonly Candidate[] {
  const media = [...GENERIC_MEDIA, ...demoBundle.media] as unknown as Medium[]
  const made = demoBundle.models.map((m) => {
    const d = { logs: [], photos: [], ...m } as unknown as Dossier
    return candidateOf(d, media, assess(modelRecord(d, media)))
  })
  return Array.from({ length: n }, (_, i) => {
    const c = structuredClone(made[i % made.length] as Candidate)
    return { ...c, id: `${c.id}-${i}`, name: `${c.name} ${i}` }
  })
}

const tanks = demoBundle.tanks.map((t) => tankRecord(t as unknown as Tank, classOf(t.stockClassId)))

/** Time of a tap at the counter: another class each time, so that what each fill carries is worked out anew. */
export function counter(): void {
  const candidates = manyCandidates(MODELS)
  const [tank] = tanks
  if (!tank) return
  const taken: number[] = []
  for (let i = 0; i < TAPS; i++) {
    const stock = { ...(STOCK_CLASSES[i % 3] as StockClass) }
    const from = performance.now()
    const list = advise({ tank: { ...tank, stock }, wishes: NO_WISHES, rule: ADVICE_RULE }, candidates)
    list.slice(0, 12).forEach((a) => explain(tank, a, ADVICE_RULE.weights))
    taken.push(performance.now() - from)
  }
  taken.sort((a, b) => a - b)
  console.log(
    `a tap at the counter         ${MODELS} models and pairs of them: median ${taken[TAPS >> 1]?.toFixed(0)} ms, slowest ${taken.at(-1)?.toFixed(0)} ms · target under 100 ms`,
  )
}

interface Drawn {
  readonly first: number
}
/** Draws sets of options in so many threads; gives wall time and the longest wait for a first word (ms). */
async function drawIn(
  threads: number,
  sets: readonly (readonly Measures[])[],
): Promise<{ ms: number; first: number }> {
  const workers = Array.from(
    { length: threads },
    () => new Worker(new URL('./rankThread.mjs', import.meta.url)),
  )
  const answer = <T>(w: Worker): Promise<T> => new Promise((r) => w.once('message', r))
  await Promise.all(workers.map((w) => answer(w)))
  const from = performance.now()
  const told = await Promise.all(
    workers.map((w, i) => {
      const done = answer<Drawn>(w)
      w.postMessage(sets.filter((_, s) => s % threads === i))
      return done
    }),
  )
  const ms = performance.now() - from
  await Promise.all(workers.map((w) => w.terminate()))
  return { ms, first: Math.max(...told.map((t) => t.first)) }
}

/** 10 000 draws of forty options for each of twelve tanks, in one thread and in two. */
export async function draws(): Promise<void> {
  const candidates = manyCandidates(COUNTER)
  const sets = tanks.slice(0, TANKS).map((tank) =>
    advise({ tank, wishes: NO_WISHES, rule: ADVICE_RULE }, candidates)
      .slice(0, COUNTER)
      .map((a) => a.measures),
  )
  const one = await drawIn(1, sets)
  const two = await drawIn(2, sets)
  console.log(
    `10 000 draws, ${COUNTER} × ${sets.length}        ${(one.ms / 1000).toFixed(2)} s in one worker, ${(two.ms / 1000).toFixed(2)} s in two · first word after ${two.first.toFixed(0)} ms · targets 2 s and 100 ms`,
  )
}
