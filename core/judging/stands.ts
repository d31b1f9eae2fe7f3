import { isBlind, SCHOOLS, type CapacitySchool, type SchoolSays } from '../tanks'
import { levelOf, type VerdictLevel } from './levels'

/** How one school stands to a claim. */
export interface Stand {
  readonly school: CapacitySchool
  readonly level: VerdictLevel
  /** Which side of the claim its whole interval lies on; null where the claim lies within. */
  readonly side: 'holds' | 'too-high' | null
}

/**
 * Does a school judge a claim at all? Oversizing takes the label at its word, so it says nothing of it. What knows
 * nothing of the media can say that a claim is too high, never that it holds.
 */
const judges = (s: SchoolSays, side: Stand['side']): boolean =>
  s.school !== 'oversizing' && (!isBlind(s.school) || side === 'too-high')

/** How the schools that speak stand to a claimed top (m³), in the house’s order; the leading one first. */
export function standsOf(schools: readonly SchoolSays[], claim: number): readonly Stand[] {
  const stands = schools.flatMap((s): readonly (Stand & { readonly leads: boolean })[] => {
    if (s.volume === null || s.interval === null) return []
    const [low, high] = s.interval
    const side = high < claim ? 'too-high' : low >= claim ? 'holds' : null
    if (!judges(s, side)) return []
    const level = s.volume > 0 ? levelOf(claim / s.volume) : 'far-overclaimed'
    return [{ school: s.school, level, side, leads: s.role === 'leads' }]
  })
  return [...stands].sort((a, b) => Number(b.leads) - Number(a.leads))
}

const saysHolds = (s: Stand): boolean => s.level === 'holds'

/**
 * Do the schools disagree? One of them surely, its whole interval on one side of the claim, and another, surely or
 * probably, on the other side.
 */
export const isSplit = (stands: readonly Stand[]): boolean =>
  stands.some((a) => a.side !== null && stands.some((b) => saysHolds(b) !== (a.side === 'holds')))

const WORDS: Readonly<Record<VerdictLevel, string>> = {
  open: 'unknown',
  holds: 'holds',
  stretched: 'optimistic',
  overclaimed: 'too high',
  'far-overclaimed': 'far too high',
}

/** A split said in one line, the leading school first: “Far too high by media mass, probably holds by feed balance”. */
export function splitWords(stands: readonly Stand[]): string {
  const byWord = new Map<string, CapacitySchool[]>()
  for (const s of stands) {
    const word = s.side === null ? `probably ${WORDS[s.level]}` : WORDS[s.level]
    byWord.set(word, [...(byWord.get(word) ?? []), s.school])
  }
  const line = [...byWord]
    .map(([word, schools]) => `${word} by ${schools.map((s) => SCHOOLS[s].words).join(' and ')}`)
    .join(', ')
  return `${line.slice(0, 1).toUpperCase()}${line.slice(1)}`
}
