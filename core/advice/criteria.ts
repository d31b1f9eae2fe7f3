/** A criterion in words: its name, what it is worth nothing and everything at, and the whole swing between. */
interface CriterionWords {
  readonly name: string
  readonly worth: string
  readonly swing: string
}

const TABLE = {
  capacity: {
    name: 'capacity',
    worth: 'nothing at 0.8 times the tank, all at twice',
    swing: 'from 0.8 times the tank to twice it',
  },
  gentleness: {
    name: 'gentleness',
    worth: 'nothing where half of the length is too fast, all where none is',
    swing: 'from half of the length too fast to none',
  },
  service: {
    name: 'little work',
    worth: 'nothing at 40 min a month, all at 5',
    swing: 'from 40 min of work a month to 5',
  },
  noise: { name: 'quiet', worth: 'nothing at 45 dB, all at 25', swing: 'from 45 dB to 25' },
  running: {
    name: 'running cost',
    worth: 'nothing where a year is dear, all where it is free',
    swing: 'from a dear year to a free one',
  },
  price: {
    name: 'price',
    worth: 'nothing where it is dear, all where it is free',
    swing: 'from a dear price to a gift',
  },
  build: {
    name: 'build',
    worth: 'nothing at four faults found, all at none',
    swing: 'from four faults to none',
  },
  evidence: {
    name: 'evidence',
    worth: 'nothing for a guess, all for a flow measured as it stands',
    swing: 'from a guess to a measured flow',
  },
} as const satisfies Readonly<Record<string, CriterionWords>>

/** Criteria that models are scored by, each from 0 (worst) to 1 (best). */
export type Criterion = keyof typeof TABLE
export const CRITERIA = Object.keys(TABLE) as readonly Criterion[]
/** Each criterion in words. */
export const CRITERION: Readonly<Record<Criterion, CriterionWords>> = TABLE
