import { EXCHANGE_BAND, gasExchange, oxygenLeft } from '../biology'
import { put, putFigure, sayFigure, type Figure, type Sentence } from '../figures'
import { capacityFigure, ruleOf, SCHOOL_WORDS } from '../tanks'
import type { JudgedFill } from './fills'
import type { TankBalance } from './tankBalance'
import type { TankRecord } from './tankRecord'

/** Oxygen under which fish are at risk within hours (kg/m³). Common practice, no source. */
const RISK = 3e-3

/** Gas exchange of the still surface (m/s), and the oxygen it would hold (kg/m³) with animals and plants breathing. */
function stillRest({ balance: b, keeping: k }: Pick<TankBalance, 'balance' | 'keeping'>): {
  readonly exchange: number
  readonly rest: number
} {
  const exchange = gasExchange({ speed: 0, depth: k.volume / k.surface, temperature: k.temperature })
  const use = b.oxygenUse.animals + b.oxygenUse.plants
  return { exchange, rest: oxygenLeft(b.saturation, use, exchange, k.surface) }
}

/**
 * How long the tank has with nothing running: until its oxygen falls to 3 mg/L under a still surface. Infinity where it
 * never does.
 */
export function hoursWithout(study: Pick<TankBalance, 'balance' | 'keeping'>): number {
  const { balance: b, keeping: k } = study
  const { exchange, rest } = stillRest(study)
  if (rest >= RISK) return Infinity
  if (b.oxygen <= RISK) return 0
  return (Math.log((b.oxygen - rest) / (RISK - rest)) * k.volume) / (exchange * k.surface) / 3600
}

/** One thing said of what is left when a filter is off. */
export interface Left {
  readonly tone: 'note' | 'caution'
  readonly sentence: Sentence
}

/** What is left when the filter is off: a second one beside it, and the hours without any. */
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
  const by = SCHOOL_WORDS[led]
  if (zero && carries.value + band < tank.water.value)
    return [
      {
        tone: 'note',
        sentence: [
          `Too little by ${by}, yet by its balance ammonia stays at `,
          sayFigure(ammonia.figure),
          ': the rule keeps a reserve that this tank, fed as it is, does not draw on. More feed or more animals would.',
        ],
      },
    ]
  const worst = ammonia.limit.met ? nitrite : ammonia
  if (!zero && carries.value - band > tank.water.value)
    return [
      {
        tone: 'caution',
        sentence: [
          `Enough by ${by}, yet by its balance ${worst === ammonia ? 'ammonia' : 'nitrite'} comes to `,
          sayFigure(worst.figure),
          ': this tank is fed more than the rule has in mind, or too little water comes to the media.',
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
          'Two of them: either alone carries ',
          sayFigure(one),
          ', so one can be opened while the other runs.',
        ],
      }
    : {
        tone: 'caution',
        sentence: [
          'Two of them would carry ',
          sayFigure(twice(one)),
          ' together; either alone carries only ',
          sayFigure(one),
          ' of this tank’s ',
          sayFigure(tank.water),
          '.',
        ],
      }
}

/** The hours a tank has with nothing running; nothing where nobody is fed. */
export function nothingRunning(study: TankBalance | null): readonly Left[] {
  if (!study || !(study.keeping.feed > 0)) return []
  const hours = hoursWithout(study)
  return hours === Infinity
    ? [
        {
          tone: 'note',
          sentence: ['With nothing running its oxygen stays above 3 mg/L: the surface alone gives enough.'],
        },
      ]
    : [
        {
          tone: 'caution',
          sentence: [
            'With nothing running its oxygen falls to 3 mg/L in about ',
            sayFigure(hoursFigure(study, hours)),
            '.',
          ],
        },
      ]
}

const twice = (one: Figure): Figure => ({
  ...one,
  id: `${one.id}-twice`,
  label: `${one.label}, two of them`,
  value: 2 * one.value,
  ...(one.uncertainty !== undefined && { uncertainty: 2 * one.uncertainty }),
  formula: '2 · what one carries',
  working: [putFigure('one', one)],
})

const hoursFigure = ({ balance: b, keeping: k }: TankBalance, hours: number): Figure => ({
  id: 'hours-without',
  label: 'Until oxygen falls to 3 mg/L with nothing running',
  value: hours * 3600,
  uncertainty: hours * 3600 * EXCHANGE_BAND,
  dimension: 'time',
  unit: 'h',
  provenance: 'computed',
  formula: 't = V/(K_L A) · ln[(C₀ − C∞)/(3 mg/L − C∞)]',
  working: [
    put('C₀', 'as it stops', b.oxygen, 'concentration', 'computed'),
    put(
      'C∞',
      'where a still surface would hold it',
      stillRest({ balance: b, keeping: k }).rest,
      'concentration',
      'computed',
    ),
    put('use', 'animals and plants', b.oxygenUse.animals + b.oxygenUse.plants, 'feed', 'computed'),
    put('V', 'water in the tank', k.volume, 'volume', 'computed'),
  ],
  source: 'a still surface, 0.6 m a day (common practice), to a factor of two',
})
