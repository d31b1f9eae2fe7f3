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
      what: 'Flow, bare and empty at no lift',
      why: pumped
        ? 'The only fair comparison with the rated flow.'
        : 'What this air pump lifts with nothing in the way.',
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
            what: `Flow empty at ${lift} m`,
            why: 'A point of the pump’s curve; three to five fix it.',
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
        what: 'Height at which the flow stops',
        why: 'The label’s maximum head, measured.',
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
          what: 'Flow empty, on its own hoses',
          why: 'What the hoses alone cost.',
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
  loaded('as-shipped', 'Flow loaded as shipped', 'What a buyer gets out of the box.')
  loaded('proposed', 'Flow loaded as proposed', 'What it does with the media you would put in.')
  if (pumped)
    add(
      {
        id: 'power',
        what: 'Watts, loaded',
        why: 'Running cost, and the efficiency of the pump.',
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
        what: 'Air against water lifted',
        why: 'Shows whether the fitting leaks and how near it is to what the riser could lift.',
        kind: 'air',
        state: 'as-shipped',
        hookup: 'bare',
      },
      is('air'),
    )
  add(
    {
      id: 'noise',
      what: 'Noise at 1 m, with and without',
      why: 'Heard, not claimed; without the background it says little.',
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
        why: 'Whether it comes back by itself after a power cut.',
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
        what: 'How long cups and clips hold',
        why: 'What falls off at night floods or cooks.',
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
      why: 'Where the return goes and how soon the far corner colours. Aquarium-safe dye, no animals.',
      kind: 'dye',
      state: 'as-shipped',
      hookup: 'own',
    },
    is('dye'),
  )
  add(
    {
      id: 'dirty',
      what: 'Flow when dirty',
      why: 'What is left after weeks; sets the service interval.',
      kind: 'vessel',
      state: 'dirty',
      hookup: model.hookups.length ? 'own' : 'bare',
      lift,
    },
    (t) => flow(t) && t.state === 'dirty',
  )
  return out
}
