import { putFigure, inline, type Figure, type Sentence } from '../figures'
import { capacityFigure, ruleOf, SCHOOLS } from '../tanks'
import type { JudgedFill } from './fills'
import { closedBodyFigure } from './tankBalance'
import type { TankBalance } from './balanceWords'
import type { TankRecord } from '../tanks/tankRecord'
import { EXCHANGES, hoursFigure, hoursWithout, restFigure } from './withoutFilter'

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
