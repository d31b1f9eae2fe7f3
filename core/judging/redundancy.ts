import { EXCHANGE_BAND, gasExchange, OXYGEN_OF_NITROGEN } from '../biology'
import { put, putFigure, inline, type Figure, type Sentence } from '../figures'
import { capacityFigure, ruleOf, SCHOOLS } from '../tanks'
import type { JudgedFill } from './fills'
import { closedBodyFigure, type TankBalance } from './tankBalance'
import type { TankRecord } from '../tanks/tankRecord'

/** Oxygen under which fish are at risk within hours (kg/m³). Common practice, no source. */
const RISK = 3e-3

/** Gas exchange of a surface that nothing stirs, in its band: half of it, what the sums give, half as much again. */
const EXCHANGES = { low: 1 - EXCHANGE_BAND, given: 1, high: 1 + EXCHANGE_BAND } as const

/**
 * Gas exchange of the still surface (m/s), and how far below saturation it would hold the oxygen (kg/m³) with animals,
 * plants and bacteria breathing, and the tank’s own films taking what they take.
 */
function stillRest(
  { balance: b, keeping: k }: Pick<TankBalance, 'balance' | 'keeping'>,
  share: number,
): { readonly exchange: number; readonly drawn: number } {
  const exchange = share * gasExchange({ speed: 0, depth: k.volume / k.surface, temperature: k.temperature })
  return { exchange, drawn: usedWithout(b) / (exchange * k.surface) }
}

/** Oxygen used with every filter off (kg/s). */
const usedWithout = (b: TankBalance['balance']): number =>
  b.oxygenUse.animals + b.oxygenUse.plants + b.oxygenUse.rotting + b.nitrogen.own * OXYGEN_OF_NITROGEN

/**
 * How long the tank has with nothing running (hours): until its oxygen falls to 3 mg/L under a still surface that takes
 * in a share of what the sums give. Infinity where it never does.
 */
export function hoursWithout(study: Pick<TankBalance, 'balance' | 'keeping'>, share = 1): number {
  const { balance: b, keeping: k } = study
  const { exchange, drawn } = stillRest(study, share)
  const rest = b.saturation - drawn
  if (b.oxygen <= RISK) return 0
  if (rest >= RISK) return Infinity
  return (Math.log((b.oxygen - rest) / (RISK - rest)) * k.volume) / (exchange * k.surface) / 3600
}

/** Oxygen at which a still surface holds the tank (kg/m³), never below nothing. */
export const oxygenWithout = (study: Pick<TankBalance, 'balance' | 'keeping'>, share = 1): number =>
  Math.max(0, study.balance.saturation - stillRest(study, share).drawn)

/** One thing said of what is left when a filter is off. */
export interface Left {
  readonly tone: 'note' | 'caution'
  readonly sentence: Sentence
}

/** Redundancy when the filter is off: a second one beside it, and the hours without any. */
export const redundancySentences = (
  tank: TankRecord,
  fill: JudgedFill,
  study: TankBalance | null,
  claimedMax: number | null = null,
): readonly Left[] => [
  ...ruleBesideBalance(tank, capacityFigure(fill, tank.stock, claimedMax), study),
  twoOfThem(tank, fill, claimedMax),
  ...nothingRunning(study),
]

/**
 * Where the rule that leads and the balance of one tank say opposite things, why: the rule keeps a reserve, or the
 * tank asks more than its class does. Nothing where they agree, or where either is silent.
 */
export function ruleBesideBalance(
  tank: TankRecord,
  carries: Figure,
  study: TankBalance | null,
): readonly Left[] {
  const led = ruleOf(tank.stock).order[0]
  if (!study || !led || led === 'balance') return []
  const of = (id: string) => study.lines.find((l) => l.figure.id === `tank-${id}`)
  const [ammonia, nitrite] = [of('ammonia'), of('nitrite')]
  if (!ammonia?.limit || !nitrite?.limit) return []
  const zero = ammonia.limit.met && nitrite.limit.met
  const band = carries.uncertainty ?? 0
  const by = SCHOOLS[led].words
  if (zero && carries.value + band < tank.water.value)
    return [
      {
        tone: 'note',
        sentence: [
          `Too small by ${by}, yet the forecast keeps ammonia at `,
          inline(ammonia.figure),
          '. The rule keeps a reserve that this tank does not use yet. More feed or animals would.',
        ],
      },
    ]
  const worst = ammonia.limit.met ? nitrite : ammonia
  if (!zero && carries.value - band > tank.water.value)
    return [
      {
        tone: 'caution',
        sentence: [
          `Enough by ${by}, yet the forecast puts ${worst === ammonia ? 'ammonia' : 'nitrite'} at `,
          inline(worst.figure),
          '. Feeding is heavier than the rule assumes, or too little water reaches the media.',
        ],
      },
    ]
  return []
}

function twoOfThem(tank: TankRecord, fill: JudgedFill, claimedMax: number | null): Left {
  const one = capacityFigure(fill, tank.stock, claimedMax)
  return one.value >= tank.water.value
    ? {
        tone: 'note',
        sentence: [
          'With two, either alone supports ',
          inline(one),
          '. You can open one while the other runs.',
        ],
      }
    : {
        tone: 'caution',
        sentence: [
          twice(one).value < tank.water.value ? 'Even two would support only ' : 'Two would support ',
          inline(twice(one)),
          ' together, either alone ',
          inline(one),
          '. The tank is ',
          inline(tank.water),
          '.',
        ],
      }
}

/**
 * The hours a tank has with nothing running, by the low end of what its surface may take in; nothing where nobody is
 * fed.
 */
export function nothingRunning(study: TankBalance | null): readonly Left[] {
  if (!study || !(study.keeping.feed > 0)) return []
  const [low, given] = [hoursWithout(study, EXCHANGES.low), hoursWithout(study)]
  if (low === Infinity)
    return [
      {
        tone: 'note',
        sentence: [
          'Power cut: oxygen settles at ',
          inline(restFigure(study)),
          '. It stays above 3 mg/L even if the still surface takes in only half as much.',
        ],
      },
    ]
  if (low === 0)
    return [
      {
        tone: 'caution',
        sentence: ['Power cut: oxygen at night may already be at 3 mg/L. Without flow it only falls.'],
      },
    ]
  if (given === Infinity)
    return [
      {
        tone: 'caution',
        sentence: [
          'Power cut: oxygen may fall to 3 mg/L in ',
          inline(hoursFigure(study, low, 'low'), 2),
          '. The surface alone is calculated to be enough, but not if it takes in half as much. Do not rely on it.',
        ],
      },
    ]
  return [
    {
      tone: 'caution',
      sentence: [
        'Power cut: oxygen falls to 3 mg/L in about ',
        inline(hoursFigure(study, given, 'given'), 2),
        ', perhaps in ',
        inline(hoursFigure(study, low, 'low'), 2),
        '. Plan for the shorter time.',
      ],
    },
  ]
}

/**
 * Sentences on a filter that stands for some hours: whether the oxygen shut into its body lasts, what is left of its
 * film, and that what has gone foul must not go back into the tank. `body` as a story has it; `left`, the share of its
 * film that is there afterwards.
 */
export function stoppedBody(
  study: TankBalance,
  { body, hours, left }: { readonly body: number | null; readonly hours: number; readonly left: number },
): readonly Left[] {
  if (body === Infinity) return []
  const lasts = closedBodyFigure(study, body)
  const of: Sentence = lasts
    ? ['The oxygen in the stopped filter lasts about ', inline(lasts), '. ']
    : ['The water volume of the filter is unknown. Assume no oxygen is left in it. ']
  // By the short end of what is believed.
  if (lasts && hours * 3600 < lasts.value - (lasts.uncertainty ?? 0))
    return [{ tone: 'note', sentence: [...of, 'Until then you can restart it as it is.'] }]
  return [
    {
      tone: 'caution',
      sentence: [
        ...of,
        'Do not restart it into the tank: its water may be foul. Pour the water away and rinse the media in tank water first. ' +
          `If it smells of rotten eggs, do it outdoors. Calculated: ${percent(left)} of its bacteria are left. Test ammonia and nitrite for some days.`,
      ],
    },
  ]
}

const percent = (share: number): string =>
  share > 0.995 ? 'nearly all' : `about ${Math.round(100 * share)} %`

const twice = (one: Figure): Figure => ({
  ...one,
  id: `${one.id}-twice`,
  label: `${one.label}, two of them`,
  value: 2 * one.value,
  ...(one.uncertainty !== undefined && { uncertainty: 2 * one.uncertainty }),
  formula: '2 · what one supports',
  working: [putFigure('one', one)],
})

/** Half of what the still surface gives, and what goes by it. */
const STILL = 'a still surface, 0.6 m a day (common practice), to a factor of two'
const without = ({ balance: b, keeping: k }: TankBalance): Figure['working'] => [
  put('use', 'animals, plants, and the bacteria of the tank itself', usedWithout(b), 'feed', 'computed'),
  put('C*', 'saturation', b.saturation, 'concentration', 'computed'),
  put('A', 'water surface', k.surface, 'area', 'measured'),
]

const hoursFigure = (study: TankBalance, hours: number, which: 'low' | 'given'): Figure => {
  const { balance: b, keeping: k } = study
  const ends = [EXCHANGES.low, EXCHANGES.high].map((share) => hoursWithout(study, share) * 3600) as [
    number,
    number,
  ]
  const value = hours * 3600
  return {
    id: which === 'low' ? 'hours-without-low' : 'hours-without',
    label:
      which === 'low'
        ? 'Power cut: oxygen reaches 3 mg/L, at half the surface exchange'
        : 'Power cut: oxygen reaches 3 mg/L',
    value,
    ...(which === 'given' &&
      ends[1] < Infinity && { uncertainty: Math.max(value - ends[0], ends[1] - value), interval: ends }),
    dimension: 'time',
    unit: value < 3600 ? 'min' : 'h',
    provenance: 'computed',
    conditions: which === 'low' ? ['half of the surface exchange: the low end of its range'] : [],
    formula: 't = V/(K_L A) · ln[(D − C* + C₀)/(D − C* + 3 mg/L)],  D = use/(K_L A)',
    working: [
      put('C₀', 'as it stops', b.oxygen, 'concentration', 'computed'),
      put('K_L', 'gas exchange', stillRest(study, EXCHANGES[which]).exchange, 'velocity', 'rule'),
      put('V', 'water in the tank', k.volume, 'volume', 'computed'),
      ...(without(study) ?? []),
    ],
    source: STILL,
  }
}

/** Where a still surface holds the oxygen, by its low end. */
const restFigure = (study: TankBalance): Figure => ({
  id: 'oxygen-without',
  label: 'Oxygen in a power cut',
  value: oxygenWithout(study),
  uncertainty: oxygenWithout(study) - oxygenWithout(study, EXCHANGES.low),
  dimension: 'concentration',
  provenance: 'computed',
  formula: 'C = C* − use/(K_L A), never below nothing',
  working: [
    put('K_L', 'gas exchange', stillRest(study, 1).exchange, 'velocity', 'rule'),
    ...(without(study) ?? []),
  ],
  source: STILL,
})
