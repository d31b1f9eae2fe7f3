import { isLabelCondition } from '../trials/flows'
import { FILTERS, hasPump } from '../kinds'
import { claimed } from '../trials/labels'
import type { ModelRecord } from '../trials/records'
import { GAPS, type Gap } from './gaps'

/** How far each station is, 0 to 1, and the next useful action. */
export interface Progress {
  readonly claims: number
  readonly bench: number
  readonly next: {
    readonly station: 'claims' | 'bench' | 'fill' | 'verdict'
    readonly action: string
    /** What is then no longer missing; null where nothing is. */
    readonly gap: Gap | null
  }
}

const share = (done: readonly boolean[]): number => done.filter(Boolean).length / done.length

const hasFill = (m: ModelRecord): boolean => m.inside?.fills.some((f) => f.layers.length > 0) ?? false

/** Progress of claims and bench, from the record alone. */
export function progress(model: ModelRecord): Progress {
  const has = (q: Parameters<typeof claimed>[1]): boolean => claimed(model, q) !== undefined
  const pumped = hasPump(model.kind)
  // Foam says nothing by its weight: its layers are asked for instead.
  const foam = FILTERS[model.kind].foamIsMedia === true
  const media = hasFill(model) || (!foam && model.mediaMass !== null)
  const timed = model.trials.filter((t) => t.runs.length >= 3)
  const claims = share([
    has('rated-flow'),
    has('tank-max'),
    has('tank-min'),
    ...(pumped ? [has('power'), has('max-head')] : []),
  ])
  const bare = timed.some((t) => isLabelCondition(t))
  const installed = timed.some((t) => t.hookupId !== null && t.state !== 'empty')
  const lifts = new Set(timed.filter((t) => t.state === 'empty').map((t) => t.lift)).size >= 3
  const bench = share([
    bare,
    installed,
    foam ? media : model.mediaMass !== null,
    ...(pumped ? [model.hookups.length > 0, lifts] : []),
  ])
  // Dry media are weighed before any water comes to them, and they are what most verdicts rest on.
  const steps: readonly (readonly [open: boolean, gap: Gap, action: string])[] = [
    [!has('rated-flow'), 'rated-flow', 'Add the label’s rated flow'],
    [!has('tank-max'), 'tank-max', 'Add the label’s tank size'],
    [!media && !foam, 'media-mass', 'Weigh the supplied bio media, dry'],
    [!media && foam, 'fill', 'Add the supplied media, layer by layer'],
    [pumped && !has('max-head'), 'max-head', 'Add the label’s maximum head'],
    [!bare, 'empty-flow', 'Time the flow 5 times, empty and without hoses'],
    [pumped && !model.hookups.length, 'hookup', 'Enter the plumbing (hoses, taps, heights)'],
    [!installed, 'installed-flow', 'Time the flow as installed, with media and hoses'],
    [pumped && !lifts, 'head-series', 'Time the flow at three outlet heights'],
  ]
  const step = steps.find(([open]) => open)
  if (!step) return { claims, bench, next: { station: 'verdict', action: 'Read the verdict', gap: null } }
  const [, gap, action] = step
  return { claims, bench, next: { station: GAPS[gap].station, action, gap } }
}
