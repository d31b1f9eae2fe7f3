import type { TrialKind } from '../trials/readings'
import { FLOW_KINDS, READING_SHAPES } from '../trials/readings'
import { claimed, atMains } from '../trials/labels'
import type { FillState, ModelRecord, TrialRecord } from '../trials/records'
import { FILTERS, hasPump } from '../kinds'

/** One trial of the usual set: what, why, under which conditions, and whether it has been done. */
export interface ProposedTrial {
  readonly id: string
  readonly what: string
  readonly why: string
  readonly kind: TrialKind
  readonly state: FillState
  readonly hookup: 'bare' | 'own'
  readonly lift: number
  readonly done: boolean
  /** The trial that did it or was begun for it. */
  readonly trialId: string | null
}

/** Shares of the head the lifts are proposed at. */
const STEPS = [0.2, 0.4, 0.6, 0.8]

/** Lifts (m) of a head series: shares of the label's head, to the whole centimetre. Three where the head is small. */
export function proposedLifts(head: number): readonly number[] {
  const steps = head < 0.7 ? [0.25, 0.5, 0.75] : STEPS
  return steps.map((s) => Math.round(s * head * 100) / 100)
}

const near = (a: number, b: number, tolerance: number): boolean => Math.abs(a - b) <= tolerance

/**
 * The usual set of trials for a model, in working order: bare and empty, own hoses, loaded, three to five lifts, the
 * height at which the flow stops, watts, noise, priming, dye, and later dirty. Common practice, no source.
 */
export function proposedTrials(model: ModelRecord): readonly ProposedTrial[] {
  const out: ProposedTrial[] = []
  const add = (
    p: Omit<ProposedTrial, 'done' | 'trialId' | 'lift'> & { readonly lift?: number },
    fits: (t: TrialRecord) => boolean,
  ): void => {
    const begun = model.trials.filter(fits)
    const done = begun.find(
      (t) => t.runs.length + (t.logs?.length ?? 0) >= (READING_SHAPES[t.kind ?? 'vessel'].enough ?? 1),
    )
    out.push({ lift: 0, ...p, done: done !== undefined, trialId: done?.id ?? begun[0]?.id ?? null })
  }
  const flow = (t: TrialRecord): boolean => FLOW_KINDS.includes(t.kind ?? 'vessel')
  const is =
    (kind: TrialKind) =>
    (t: TrialRecord): boolean =>
      t.kind === kind
  const pumped = hasPump(model.kind)
  add(
    {
      id: 'bare',
      what: 'Rated flow (empty, no hoses, zero head)',
      why: pumped
        ? 'The only fair comparison with the label.'
        : 'What the air pump lifts with nothing in the way.',
      kind: 'vessel',
      state: 'empty',
      hookup: 'bare',
    },
    (t) => flow(t) && t.state === 'empty' && t.hookupId === null && t.lift <= 0,
  )
  if (pumped) {
    const claim = claimed(model, 'max-head')
    const head = claim ? atMains(claim, model.mainsFrequency).value : null
    if (head !== null)
      for (const lift of proposedLifts(head))
        add(
          {
            id: `lift-${lift}`,
            what: `Flow at ${lift} m outlet height (empty)`,
            why: 'One point of the pump curve; three to five define it.',
            kind: 'vessel',
            state: 'empty',
            hookup: 'bare',
            lift,
          },
          (t) => flow(t) && t.state === 'empty' && t.lift > 0 && near(t.lift, lift, 0.11 * head),
        )
    add(
      {
        id: 'shut-off',
        what: 'Maximum head',
        why: 'The height at which the flow stops.',
        kind: 'shut-off',
        state: 'empty',
        hookup: 'bare',
      },
      is('shut-off'),
    )
    if (model.hookups.length)
      add(
        {
          id: 'hoses',
          what: 'Flow on its own plumbing (empty)',
          why: 'Shows what the hoses alone cost.',
          kind: 'vessel',
          state: 'empty',
          hookup: 'own',
        },
        (t) => flow(t) && t.state === 'empty' && t.hookupId !== null,
      )
  }
  const lift = model.hookups[0]
    ? Math.max(0, model.hookups[0].outletAboveWater) + model.hookups[0].sourceBelowWater
    : 0
  const loaded = (state: FillState, what: string, why: string): void =>
    add(
      { id: state, what, why, kind: 'vessel', state, hookup: model.hookups.length ? 'own' : 'bare', lift },
      (t) => flow(t) && t.state === state,
    )
  loaded('as-shipped', 'Installed flow, supplied media', 'What a buyer gets out of the box.')
  loaded('proposed', 'Installed flow, recommended media', 'What it does with the media you recommend.')
  if (pumped)
    add(
      {
        id: 'power',
        what: 'Power, as installed',
        why: 'Running cost and pump efficiency.',
        kind: 'power',
        state: 'as-shipped',
        hookup: 'own',
      },
      is('power'),
    )
  else
    add(
      {
        id: 'air',
        what: 'Air and water lifted',
        why: 'Shows air leaks, and how much the riser could lift.',
        kind: 'air',
        state: 'as-shipped',
        hookup: 'bare',
      },
      is('air'),
    )
  add(
    {
      id: 'noise',
      what: 'Noise at 1 m, with and without the filter',
      why: 'Without the background reading a level says little.',
      kind: 'noise',
      state: 'as-shipped',
      hookup: 'own',
    },
    is('noise'),
  )
  if (pumped)
    add(
      {
        id: 'prime',
        what: 'Priming and restart',
        why: 'Does it restart by itself after a power cut?',
        kind: 'prime',
        state: 'as-shipped',
        hookup: 'own',
      },
      is('prime'),
    )
  if (FILTERS[model.kind].cups)
    add(
      {
        id: 'holding',
        what: 'Holding time of cups and clips',
        why: 'A cup that lets go at night can flood the room or leave a heater dry.',
        kind: 'holding',
        state: 'as-shipped',
        hookup: 'bare',
      },
      is('holding'),
    )
  add(
    {
      id: 'dye',
      what: 'Dye in the tank',
      why: 'Shows where the return goes. Use aquarium-safe dye and no animals.',
      kind: 'dye',
      state: 'as-shipped',
      hookup: 'own',
    },
    is('dye'),
  )
  add(
    {
      id: 'dirty',
      what: 'Flow before cleaning',
      why: 'Shows when to clean.',
      kind: 'vessel',
      state: 'dirty',
      hookup: model.hookups.length ? 'own' : 'bare',
      lift,
    },
    (t) => flow(t) && t.state === 'dirty',
  )
  return out
}
