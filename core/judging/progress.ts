import { isLabelCondition } from '../trials/flows'
import { FILTERS, hasPump } from '../kinds'
import { claimed } from '../trials/labels'
import type { ModelRecord } from '../trials/records'

/** How far each station is, 0 to 1, and the next useful action. */
export interface Progress {
  readonly claims: number
  readonly bench: number
  readonly next: { readonly station: 'claims' | 'bench' | 'fill' | 'verdict'; readonly action: string }
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
  const steps: readonly (readonly [open: boolean, station: Progress['next']['station'], action: string])[] = [
    [!has('rated-flow'), 'claims', 'Add the label’s rated flow'],
    [!has('tank-max'), 'claims', 'Add the label’s tank size'],
    [pumped && !has('max-head'), 'claims', 'Add the label’s maximum head'],
    [!bare, 'bench', 'Time the flow 5 times, empty and without hoses'],
    [!media && !foam, 'claims', 'Weigh the supplied bio media, dry'],
    [!media && foam, 'fill', 'Add the supplied media, layer by layer'],
    [pumped && !model.hookups.length, 'bench', 'Enter the plumbing (hoses, taps, heights)'],
    [!installed, 'bench', 'Time the flow as installed, with media and hoses'],
    [pumped && !lifts, 'bench', 'Time the flow at three outlet heights'],
  ]
  const [, station, action] = steps.find(([open]) => open) ?? [true, 'verdict', 'Read the verdict']
  return { claims, bench, next: { station, action } }
}
