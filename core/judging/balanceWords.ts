import { keptAtPH, AT_LEAST, type Balance, type Keeping, type LimitId } from '../biology'
import { lowerFirst, upperFirst, inline, type Figure, type Sentence, put } from '../figures'
import type { TankRecord } from '../tanks'

/** One line of a tank's balance: the number, and how it stands to its limit. */
export interface BalanceLine {
  readonly figure: Figure
  /** Its limit, and how it stands to it; null where there is none. */
  readonly limit: BalanceLimit | null
}

/** How a number stands to its limit. */
interface BalanceLimit {
  readonly words: string
  readonly met: boolean
  /** The limit lies within the doubt of the number: it may be kept or passed. */
  readonly doubtful: boolean
  /** “above the limit”, “maybe below the limit”; empty where it is kept for sure. */
  readonly said: string
}

/** A tank with a fill on it, at rest. */
export interface TankBalance {
  readonly balance: Balance
  readonly keeping: Keeping
  readonly lines: readonly BalanceLine[]
  readonly sentences: readonly {
    readonly tone: 'note' | 'caution' | 'against'
    readonly sentence: Sentence
  }[]
}

/** What each number is held to. */
export const LIMIT_WORDS: Readonly<Record<LimitId, string>> = {
  ammonia: '0.12 mg/L, where a test kit still reads 0',
  unionised: 'at most 0.025 mg/L (EIFAC 1970)',
  nitrite: '0.12 mg/L, where a test kit still reads 0',
  oxygen: 'at least 5 mg/L',
  alkalinity: 'at least 25 mg/L, or half of the new water’s',
  nitrate: 'the limit for this stocking',
}

/** Above this pH nothing is known of films in tanks (common practice, no source). */
const HIGH_PH = 9

/** Films that keep less of their rate than this for want of pH are said to be slow. */
const SLOW = 0.9

/** Below this films hardly work (°C; common practice, no source). */
const FILM_COLD = 8

/** What is said of a tank at rest: what is out of its limits, what is near them, and what it rests on. */
export function balanceSentences(
  tank: TankRecord,
  k: Keeping,
  b: Balance,
  lines: readonly BalanceLine[],
): TankBalance['sentences'] {
  const reserve = lines.find((l) => l.figure.id === 'tank-reserve')?.figure
  const out: { tone: 'note' | 'caution' | 'against'; sentence: Sentence }[] = []
  const add = (tone: 'note' | 'caution' | 'against', ...sentence: Sentence): void =>
    void out.push({ tone, sentence })
  if (!(b.load.ammonia > 0)) {
    add('note', 'No feed, no animals. Without food the bacteria will starve.')
    return out
  }
  const own = lines.find((l) => l.figure.id === 'tank-own')?.figure
  const made = lines.find((l) => l.figure.id === 'tank-ammonia-made')?.figure
  if (own && made)
    add(
      'note',
      'Bacteria on glass, substrate and décor process ',
      inline(own),
      ' of the ',
      inline(made),
      ' of ammonia.',
    )
  if (k.food)
    add(
      'caution',
      'The water conditioner leaves the bacteria about half of the ammonia. Test kits show more, and cycling takes longer.',
    )
  const failing = b.limits.filter((l) => !l.met)
  const doubtful = new Set(
    b.limits
      .filter(({ id }) => lines.find((l) => l.figure.id === `tank-${id}`)?.limit?.doubtful)
      .map((l) => l.id),
  )
  if (!failing.length && !doubtful.size && reserve && Number.isFinite(b.reserve))
    add(
      'note',
      'All values are within limits. The bacteria could process ',
      inline(reserve),
      ' times the daily load before a test kit shows ammonia.',
    )
  const limitWords = (id: LimitId): string =>
    lines.find((l) => l.figure.id === `tank-${id}`)?.limit?.words ?? LIMIT_WORDS[id]
  for (const { id, value } of failing.filter((l) => !doubtful.has(l.id)))
    add(
      'against',
      value === Infinity
        ? `${NAMES[id]} keeps rising. Limit: ${limitWords(id)}.`
        : `${NAMES[id]} too ${AT_LEAST.has(id) ? 'low' : 'high'}. Limit: ${limitWords(id)}.`,
    )
  const [one, ...others] = b.limits.filter((l) => doubtful.has(l.id)).map((l) => l.id)
  if (one)
    add(
      'caution',
      others.length
        ? `${upperFirst(and([one, ...others].map((id) => lowerFirst(NAMES[id]))))} are borderline.`
        : `${NAMES[one]} is borderline. Limit: ${limitWords(one)}.`,
    )
  if (keptAtPH(k.pH) < SLOW)
    add(
      'caution',
      keptAtPH(k.pH) > 0
        ? `At pH ${k.pH} bacteria work at about ${Math.round(100 * keptAtPH(k.pH))} % of their speed. A tank long at that pH may do better.`
        : `At pH ${k.pH} bacteria hardly work by this calculation. A tank long at that pH may do better, and ammonia is nearly harmless there.`,
    )
  if (k.pH > HIGH_PH)
    add('caution', `At pH ${k.pH} this forecast is unsure: it holds up to about pH ${HIGH_PH}.`)
  if (k.temperature < FILM_COLD)
    add(
      'caution',
      'In water this cold bacteria hardly work and fish eat little. Treat this forecast as a guess.',
    )
  if (b.nitrate === Infinity && !failing.some((l) => l.id === 'nitrate'))
    add('caution', 'Without water changes nitrate keeps rising.')
  if (b.limits.some((l) => l.id === 'alkalinity' && !l.met))
    add(
      'caution',
      doubtful.has('alkalinity') ? 'Hardness (KH) may be used up' : 'Hardness (KH) is used up',
      ' faster than water changes replace it. Without changes it lasts about ',
      inline(
        {
          ...alkalinityFigure(k, b),
          id: 'alkalinity-days',
          label: 'Alkalinity lasts',
          value: b.alkalinityDays * 86400,
          dimension: 'time',
          unit: 'd',
          formula: 't = alkalinity · V ÷ (7.14 · N oxidised − 3.57 · N let out)',
        },
        2,
      ),
      '. Then pH drops and bacteria stop. Change water more often, or raise KH.',
    )
  else if (b.pHFall > 0.15)
    add(
      'note',
      'Between water changes pH drops by about ',
      inline(
        {
          ...alkalinityFigure(k, b),
          id: 'ph-fall',
          label: 'Fall of pH between changes',
          value: b.pHFall,
          dimension: 'ratio',
          formula: 'ΔpH = log (alkalinity put in ÷ alkalinity left)',
        },
        2,
      ),
      ', because the bacteria use up hardness (KH).',
    )
  if (tank.feed === null) add('note', 'Feeding is assumed. Enter the real amount for a tighter forecast.')
  return out
}

const NAMES: Readonly<Record<LimitId, string>> = {
  ammonia: 'Ammonia',
  unionised: 'Un-ionised ammonia',
  nitrite: 'Nitrite',
  oxygen: 'Oxygen at night',
  alkalinity: 'Alkalinity',
  nitrate: 'Nitrate',
}

/** Parts that the figures of alkalinity share. */
const alkalinityFigure = (k: Keeping, b: Balance) =>
  ({
    provenance: 'computed',
    working: [
      put('alkalinity', 'of the water put in', k.alkalinity, 'concentration', 'measured'),
      put('left', 'before a change', b.alkalinity, 'concentration', 'computed'),
      put('N', 'oxidised', b.nitrogen.oxidised, 'feed', 'computed'),
      put('V', 'water in the tank', k.volume, 'volume', 'computed'),
    ],
    source:
      '7.14 g CaCO₃ for each g of nitrogen (EPA 1993), half of it given back (charge balance); at an unchanged CO₂',
  }) as const

const and = (words: readonly string[]): string => new Intl.ListFormat('en').format(words)

/** The line a reader looks for first: how a tank stands by its balance. */
export const balanceWords = (t: TankBalance): Sentence => {
  const held = t.lines.flatMap(({ figure, limit }) => {
    const id = figure.id.replace(/^tank-/, '') as LimitId
    return limit && NAMES[id] ? [{ name: NAMES[id].toLowerCase(), low: AT_LEAST.has(id), ...limit }] : []
  })
  const over = and(
    held.filter((l) => !l.met && !l.doubtful).map((l) => `${l.name} too ${l.low ? 'low' : 'high'}`),
  )
  const maybe = and(held.filter((l) => l.doubtful).map((l) => l.name))
  const ammonia = t.lines.find((l) => l.figure.id === 'tank-ammonia')?.figure
  if (over || maybe) return [[over, maybe && `${maybe} borderline`].filter(Boolean).join('; ')]
  return ['ammonia ', ...(ammonia ? [inline(ammonia)] : [])]
}
