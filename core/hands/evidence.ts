import { daysBetween, dayText, type Day } from '../days'
import { put, inline, type Figure, type Sentence } from '../figures'
import { FILTERS, type FilterKind } from '../kinds'
import type { OrderFinding } from '../path'
import { CHECKLISTS } from '../parts/vocabulary'
import type { VisitRecord } from '../visits/record'
import type { Evidence } from './faults'

/** A part as it was found last. */
export interface FoundPart {
  readonly name: string
  readonly checklist: string
  readonly findings: readonly string[]
  /** When it was looked at; null: when it was taken apart. */
  readonly on: Day | null
}

/** Record of a filter that bears on a fault; null where it knows nothing. */
export interface FaultRecord {
  readonly kind: FilterKind | null
  readonly today: Day
  readonly parts: readonly FoundPart[]
  /** Findings of the order audit in its fill; null: no fill is on record. */
  readonly order: readonly OrderFinding[] | null
  /** Flow left as it was found last, as a share of the first, and the share at which the house calls it due. */
  readonly left: { readonly figure: Figure; readonly on: Day; readonly dueAt: number } | null
  /** Layers that were seen blind and not cleaned since. */
  readonly blind: readonly string[]
  /** When it was opened or set up last, and every how many days the house opens it. */
  readonly opened: { readonly on: Day; readonly every: number } | null
  /** When it came. */
  readonly since: Day | null
  /** Flow measured here as installed against the label’s. */
  readonly ofLabel: Figure | null
  /** How far the valve was open when it was timed last, 0 to 1. */
  readonly valve: number | null
  /** From the water to the rim of the tank (m). */
  readonly belowRim: number | null
  readonly visits: readonly Pick<VisitRecord, 'on' | 'cleaned' | 'parts'>[]
  readonly last: {
    readonly on: Day
    readonly seeping: readonly string[]
    readonly hoses: string | null
    readonly holding: string | null
    readonly clarity: string | null
    readonly ammonia: number | null
    readonly nitrite: number | null
  } | null
  /** Noise at the first visit and at the last (dB). */
  readonly noise: { readonly first: number; readonly last: number } | null
  /** Steps of its set-up that were refused and never put right. */
  readonly refused: { readonly on: Day; readonly steps: readonly string[] } | null
}

/** A filter of which only its kind is known, or not even that. */
export const nothingKnown = (kind: FilterKind | null, today: Day): FaultRecord => ({
  kind,
  today,
  parts: [],
  order: null,
  left: null,
  blind: [],
  opened: null,
  since: null,
  ofLabel: null,
  valve: null,
  belowRim: null,
  visits: [],
  last: null,
  noise: null,
  refused: null,
})

/** How many times likelier a kind of evidence makes its cause (ours; common practice, no source). */
const TIMES = {
  seen: 6,
  strong: 4,
  some: 2.5,
  against: 0.3,
} as const

/** Steps of a set-up that, refused, point to a cause. */
const REFUSED_MEANS: Readonly<Record<string, readonly string[]>> = {
  'trays-level': ['tray-askew'],
  rim: ['overfilled'],
  order: ['order'],
  impeller: ['impeller-seat'],
  seal: ['head-seal'],
  'head-straight': ['head-seal'],
  latches: ['cracked-clip', 'lid-loose'],
  lid: ['lid-loose'],
  'hose-cut': ['crooked-cut'],
  'hose-top': ['slack-nut'],
  'hose-slack': ['kink', 'hose-touches'],
  level: ['tilt'],
  lip: ['below-lip'],
  cups: ['touches-glass'],
  under: ['level'],
  rock: ['trapped-air'],
  prime: ['air-lock'],
  'rinse-media': ['young-media'],
  'drain-back': ['drain-back'],
  weir: ['drain-back'],
  'air-pump': ['air-line-siphon', 'air-pump-stands'],
  'air-line': ['air-joints'],
  turning: ['still-media'],
  'drip-loop': ['cable-creep'],
}

/** Findings of parts that point to a cause, by their checklist. */
const FOUND_MEANS: Readonly<Record<string, Readonly<Record<string, readonly string[]>>>> = {
  'o-ring': { dry: ['head-seal', 'tap-ring'], flat: ['head-seal'], cracked: ['head-seal', 'tap-ring'] },
  impeller: {
    scoring: ['shaft', 'impeller-seat'],
    play: ['impeller-seat', 'shaft'],
    debris: ['impeller-gunk'],
    chipped: ['impeller-seat'],
  },
  shaft: { worn: ['shaft', 'impeller-seat'], cracked: ['impeller-seat'], rust: ['shaft'] },
  clip: { loose: ['cracked-clip', 'touches-glass'], whitened: ['cracked-clip'] },
  'hose-joint': { slips: ['slack-nut', 'intake-air'], weeps: ['slack-nut', 'crooked-cut', 'air-joints'] },
  lid: { rattles: ['lid-loose'], lifts: ['lid-loose', 'overfilled'] },
  feet: { hard: ['feet-hard'], missing: ['feet-hard'] },
  pad: { clogged: ['clogged'], torn: ['past-it', 'no-fine'], thin: ['no-fine'] },
  general: { cracked: ['cracked-body'], warped: ['lid-loose'] },
}

/** Where a visit saw water, and what that points to. */
const SEEP_MEANS: Readonly<Record<string, readonly string[]>> = {
  head: ['head-seal', 'cracked-clip'],
  lid: ['head-seal', 'cracked-clip', 'rim-overflow'],
  taps: ['tap-ring', 'slack-nut'],
  hoses: ['crooked-cut', 'slack-nut'],
  body: ['cracked-body', 'drain-back'],
}

/** Findings of the order audit that say dirt is caught in the wrong place, or goes round; the rest is taste. */
const ORDER_RULES = ['strain-before-media', 'coarse-to-fine', 'nothing-fine-after', 'foam-for-media']
const PAST_RULES = ['fine-sealed', 'bypass-share', 'water-meets-media']

/** Days in which new media give off dust and air; in which a tank ripens; in which dirt that was let go settles. */
const YOUNG = 7
const RIPE = 42
const STIRRED = 2
/** Days without a look at the impeller after which it gums up (common practice, no source: every two months). */
const IMPELLER_DAYS = 90
/** Water further below the rim than this has fallen below most lips (m; common practice, no source). */
const FALLEN = 0.05
/** Rise of the noise that is heard (dB; ours). */
const LOUDER = 3
/** A kit’s first step, half of it, as N (kg/m³): what reads as something. */
const READS = 0.12e-3

/** Evidence of the record for each cause, before any check. */
export function evidenceOf(r: FaultRecord): readonly Evidence[] {
  const out: Evidence[] = []
  const add = (checks: readonly string[], times: number, from: string, ...says: Sentence): void => {
    for (const check of checks) out.push({ check, times, says, from })
  }
  flow(r, add)
  fillAndOrder(r, add)
  found(r, add)
  lastVisit(r, add)
  ages(r, add)
  return out
}

type Add = (checks: readonly string[], times: number, from: string, ...says: Sentence) => void

function flow({ left, ofLabel, valve, opened, blind, today }: FaultRecord, add: Add): void {
  if (left) {
    const from = `check-up of ${dayText(left.on)}`
    if (left.figure.value < left.dueAt)
      add(['clogged'], TIMES.seen, from, 'Flow was down to ', inline(left.figure), ' of the first.')
    else if (left.figure.value > 0.9)
      add(['clogged', 'slimed', 'shaft'], TIMES.against, from, 'Flow was still ', inline(left.figure), ' of the first.') // prettier-ignore
  }
  if (blind.length)
    add(
      ['clogged'],
      TIMES.strong,
      'last check-up',
      `Seen clogged and not cleaned since: ${blind.join(', ')}.`,
    )
  if (opened) {
    const days = daysBetween(opened.on, today)
    const from = `opened on ${dayText(opened.on)}`
    if (days > opened.every)
      add(['clogged', 'impeller-gunk'], TIMES.some, from, `Not opened for ${days} days(house rule: every ${opened.every}).`) // prettier-ignore
    else if (days <= YOUNG)
      add(['clogged', 'clogging-cavitates'], TIMES.against, from, `Opened ${days} days ago.`)
  }
  // Only a filter that is as good as on its first day can be what its label hoped for.
  const asNew = left === null || left.figure.value > 0.85
  if (ofLabel && ofLabel.value < 0.75 && asNew)
    add(
      ['label-hope'],
      TIMES.some,
      'bench',
      'Clean and new, it gave ',
      inline(ofLabel),
      ' of its label here.',
    )
  if (valve !== null && valve < 1)
    add(['taps-shut'], TIMES.some, 'bench', 'Its valve was not fully open at the last flow test.')
}

function fillAndOrder({ order }: FaultRecord, add: Add): void {
  if (!order) return
  const wrong = order.filter((f) => ORDER_RULES.includes(f.rule.id) && f.rule.severity === 'fault')
  const past = order.filter((f) => PAST_RULES.includes(f.rule.id))
  const over = order.filter((f) => f.rule.id === 'above-rim')
  const from = 'media setup'
  if (wrong[0]) add(['order'], TIMES.strong, from, ...wrong[0].sentence)
  else add(['order'], TIMES.against, from, 'Its layers are in order.')
  if (past[0]) add(['past-it'], TIMES.strong, from, ...past[0].sentence)
  if (over[0]) add(['overfilled'], TIMES.seen, from, ...over[0].sentence)
}

function found({ parts, refused }: FaultRecord, add: Add): void {
  for (const p of parts)
    for (const f of p.findings) {
      const means = FOUND_MEANS[p.checklist]?.[f]
      const label = CHECKLISTS.find((c) => c.id === p.checklist)?.findings.find((x) => x.id === f)?.label
      if (means)
        add(means, TIMES.strong, p.on ? `check-up of ${p.on}` : 'teardown', `${p.name}: ${label ?? f}.`)
    }
  for (const step of refused?.steps ?? []) {
    const means = REFUSED_MEANS[step.split(':')[0] ?? '']
    if (means && refused) add(means, TIMES.seen, `set-up of ${dayText(refused.on)}`, REFUSED_WORDS)
  }
}
const REFUSED_WORDS = 'Marked as a problem at set-up and still open.'

function lastVisit({ last, noise, kind }: FaultRecord, add: Add): void {
  if (last) {
    const from = `check-up of ${dayText(last.on)}`
    for (const place of last.seeping) {
      const means = SEEP_MEANS[place]
      if (means) add(means, TIMES.seen, from, `Water was seen at the ${place}.`)
    }
    if (last.hoses === 'half-closed') add(['slimed'], TIMES.seen, from, 'The hoses were half closed.')
    if (last.hoses === 'clean') add(['slimed'], TIMES.against, from, 'The hoses were clean.')
    if (last.holding === 'some' || last.holding === 'none')
      add(['touches-glass', 'tilt'], TIMES.strong, from, 'Not all cups or feet held.')
    if ((last.ammonia ?? 0) > READS || (last.nitrite ?? 0) > READS)
      add(['ripening', 'too-clean', 'overfed'], TIMES.some, from, 'Ammonia or nitrite was above 0.')
    else if (last.ammonia === 0 && last.nitrite === 0)
      add(['ripening', 'too-clean'], TIMES.against, from, 'Ammonia and nitrite were 0.')
  }
  if (noise && noise.last - noise.first >= LOUDER) {
    const rise: Figure = {
      id: 'noise-rise',
      label: 'Noise since the first check-up',
      value: noise.last - noise.first,
      dimension: 'sound',
      provenance: 'computed',
      formula: 'L_now − L_first',
      working: [
        put('L_now', 'at the last check-up', noise.last, 'sound', 'measured'),
        put('L_first', 'at the first', noise.first, 'sound', 'measured'),
      ],
    }
    const worn = kind !== null && FILTERS[kind].drivenBy === 'air' ? 'diaphragm' : 'shaft'
    add([worn], TIMES.some, 'visits', 'It has grown louder by ', inline(rise, 2), '.')
  }
}

function ages({ since, today, visits, belowRim }: FaultRecord, add: Add): void {
  if (belowRim !== null && belowRim > FALLEN)
    add(['below-lip', 'level'], TIMES.some, 'tank', 'The water stands ', { si: belowRim, dimension: 'length', digits: 2 }, ' below the rim.') // prettier-ignore
  if (since !== null) {
    const age = daysBetween(since, today)
    if (age <= YOUNG)
      add(['young-media', 'trapped-air'], TIMES.strong, `since ${since}`, `It came ${age} days ago.`)
    else add(['young-media'], TIMES.against, `since ${since}`, `It came ${age} days ago.`)
    if (age <= RIPE) add(['ripening'], TIMES.some, `since ${since}`, 'Too young to be cycled.')
  }
  const cleaned = visits.filter((v) => v.cleaned.length > 0).at(-1)
  if (cleaned && daysBetween(cleaned.on, today) <= STIRRED)
    add(['stirred-up', 'too-clean'], TIMES.some, `check-up of ${dayText(cleaned.on)}`, 'It was just cleaned.')
  const tapped = visits.findLast((v) => v.cleaned.some((c) => c.how === 'tap'))
  if (tapped && daysBetween(tapped.on, today) <= RIPE)
    add(['too-clean'], TIMES.strong, `check-up of ${dayText(tapped.on)}`, 'Rinsed under the tap.')
  const looked = visits.findLast((v) =>
    v.cleaned.some((c) => c.what === 'impeller' || c.what === 'everything'),
  )
  const from = looked?.on ?? since
  if (from && daysBetween(from, today) > IMPELLER_DAYS)
    add(['impeller-gunk'], TIMES.some, looked ? `check-up of ${from}` : `since ${from}`, `Impeller not checked for ${daysBetween(from, today)} days.`) // prettier-ignore
}
