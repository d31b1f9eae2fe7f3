import type { Figure, Sentence } from '../figures'
import { FILTERS, type FilterKind } from '../kinds'
import { CAUTIONS } from '../teardown/cautions'
import { CHECKS, type Check } from './checks'
import type { CheckOutcome, Symptom } from './vocabulary'
import { isFor } from './which'

/** Outcomes of checks, by their ids. */
export type Outcomes = Readonly<Record<string, CheckOutcome>>

/** Evidence of the record for a cause: how many times likelier it makes it, said with its source. */
export interface Evidence {
  readonly check: string
  readonly times: number
  readonly says: Sentence
  readonly from: string
}

/** A cause with its chance, and what the record and the checks made of it. */
export interface Suspect {
  readonly check: Check
  /** Chance that it is this, 0 to 1, by what is common, the record and the checks done. */
  readonly chance: number
  readonly evidence: readonly Evidence[]
  readonly outcome: CheckOutcome | null
  readonly first: boolean
}

/** The next step. A search never ends without one. */
export type NextStep =
  | { readonly what: 'check'; readonly suspect: Suspect; readonly again: boolean }
  | { readonly what: 'remedy'; readonly suspect: Suspect }
  | { readonly what: 'cured'; readonly suspect: Suspect }
  | { readonly what: 'licensed'; readonly says: string }

/** A search as far as it is: causes in the order to look, the next step, and what the record says by itself. */
export interface Search {
  readonly suspects: readonly Suspect[]
  readonly next: NextStep
  /** The cause that the record alone makes likelier than all else; null: it does not tell. */
  readonly recordAlone: Suspect | null
  /** Chance that it is none of the list. */
  readonly none: number
}

/** Weight of what is on no list, against the causes’ own (ours). */
const NONE = 2
/** A cause that was put right and changed nothing keeps so much of its chance (ours). */
const REMAINS = 0.02
/** The record alone names a cause from this chance on, and from so many times the next one’s (ours). */
const NAMES_AT = 0.5
const AHEAD = 2

const TO_SOMEBODY =
  'None of these causes fits. Leave it unplugged where water may have reached mains voltage, and take it to someone licensed: a licensed electrician for anything electric, the maker’s service for the rest.'

/** How much less likely a check makes its cause: looked for and not found, 1 − how often looking finds it. */
function seen(check: Check, outcome: CheckOutcome | undefined): number {
  switch (outcome) {
    case 'clear':
      return 1 - check.sees
    case 'remains':
      return REMAINS
    default:
      return 1
  }
}

/**
 * Chances by Bayes’ rule: wᵢ Πₖ times ÷ Σ, w how common a cause is. A check that found nothing leaves 1 − sees of its
 * cause. Among what is not yet looked at, the one with the most chance of being found in a minute comes first:
 * chance · sees ÷ minutes, the order of least expected time where one fault is looked for. Source: Bayes; the order
 * after Mitten 1960 (least cost testing sequence), from memory.
 */
export function search(
  symptom: Symptom,
  kind: FilterKind | null,
  evidence: readonly Evidence[],
  outcomes: Outcomes,
  parts: readonly string[] | null = null,
): Search {
  const own = checksOf(symptom, kind, parts)
  const mine = (c: Check): readonly Evidence[] => evidence.filter((e) => e.check === c.id)
  const known = own.map(
    (c) => (c.symptoms[symptom] ?? 0) * mine(c).reduce((product, e) => product * e.times, 1),
  )
  const share = (weights: readonly number[]) => {
    const all = weights.reduce((a, b) => a + b, NONE)
    return weights.map((w) => w / all)
  }
  const before = share(known)
  const weights = known.map((w, i) => w * seen(own[i] as Check, outcomes[(own[i] as Check).id]))
  const now = share(weights)
  const suspectsAt = (chances: readonly number[]): Suspect[] =>
    own.map((check, i) => ({
      check,
      chance: chances[i] ?? 0,
      evidence: mine(check),
      outcome: outcomes[check.id] ?? null,
      first: check.first?.includes(symptom) ?? false,
    }))
  const suspects = inOrder(suspectsAt(now))
  return {
    suspects,
    next: nextOf(suspects),
    recordAlone: alone(suspectsAt(before)),
    none: NONE / weights.reduce((a, b) => a + b, NONE),
  }
}

/** The checks of a symptom for a kind of filter, and for the checklists of its parts where it was taken apart. */
export const checksOf = (
  symptom: Symptom,
  kind: FilterKind | null,
  parts: readonly string[] | null = null,
): readonly Check[] =>
  CHECKS.filter(
    (c) => c.symptoms[symptom] && isFor(c.which, kind) && (!parts || !c.of || parts.includes(c.of)),
  )

/** How soon it is worth looking: what comes first, then the most chance found in a minute. */
const worth = (s: Suspect): number => (s.chance * s.check.sees) / s.check.minutes

/** Open ones in the order to look, then those that are not sure, then what was looked at. */
function inOrder(all: readonly Suspect[]): readonly Suspect[] {
  const rank = (s: Suspect): number => {
    if (s.outcome === null) return s.first ? 0 : 1
    return s.outcome === 'unsure' ? 2 : 3
  }
  return [...all].sort((a, b) => rank(a) - rank(b) || worth(b) - worth(a))
}

function nextOf(suspects: readonly Suspect[]): NextStep {
  const by = (outcome: CheckOutcome | null): Suspect | undefined =>
    suspects.find((s) => s.outcome === outcome)
  const cured = by('cured')
  if (cured) return { what: 'cured', suspect: cured }
  const found = by('found')
  if (found) return { what: 'remedy', suspect: found }
  const open = by(null)
  if (open) return { what: 'check', suspect: open, again: false }
  const unsure = by('unsure')
  if (unsure) return { what: 'check', suspect: unsure, again: true }
  return { what: 'licensed', says: TO_SOMEBODY }
}

function alone(suspects: readonly Suspect[]): Suspect | null {
  const [top, second] = [...suspects].sort((a, b) => b.chance - a.chance)
  if (!top?.evidence.some((e) => e.times > 1)) return null
  return top.chance >= NAMES_AT && top.chance >= AHEAD * (second?.chance ?? 0) ? top : null
}

/** The chance of a cause as a number that can answer for itself. */
export function chanceFigure(s: Suspect, symptom: Symptom): Figure {
  return {
    id: `chance-${s.check.id}`,
    label: `Chance: ${s.check.cause.toLowerCase()}`,
    value: s.chance,
    dimension: 'ratio',
    unit: '%',
    provenance: 'rule',
    formula: 'p = w · Π times · (1 − sees, where looked at) ÷ Σ',
    working: [
      { symbol: 'w', label: 'how common, against the others of the list', value: s.check.symptoms[symptom] ?? 0, dimension: 'ratio', provenance: 'rule' }, // prettier-ignore
      ...s.evidence.map((e, i) => ({ symbol: `times_${i + 1}`, label: e.from, value: e.times, dimension: 'ratio' as const, provenance: 'rule' as const })), // prettier-ignore
      { symbol: 'sees', label: 'of what is there looking finds', value: s.check.sees, dimension: 'ratio', provenance: 'rule' }, // prettier-ignore
    ],
    source: 'Bayes; how common a cause is: common practice, no source',
  }
}

/** The caution that stands at a check, as it is for this kind of filter. */
export function checkCaution({ caution }: Pick<Check, 'caution'>, kind: FilterKind | null): string | null {
  if (!caution) return null
  if (caution === 'mains' && kind !== null && FILTERS[kind].drivenBy === 'air') return CAUTIONS.air
  return CAUTIONS[caution]
}
