/** A criterion in words: its name, what it is worth nothing and everything at, and the whole swing between. */
interface CriterionWords {
  readonly name: string
  readonly worth: string
  readonly swing: string
}

const TABLE = {
  capacity: {
    name: 'capacity',
    worth: '0 points at 0.8 × the tank, full points at 2 ×',
    swing: 'from 0.8 times the tank to twice it',
  },
  gentleness: {
    name: 'gentleness',
    worth: '0 points where half of the tank is too strong, full points where none is',
    swing: 'from half of the tank too strong to none',
  },
  service: {
    name: 'little work',
    worth: '0 points at 40 min a month, full points at 5',
    swing: 'from 40 min of work a month to 5',
  },
  noise: { name: 'quiet', worth: '0 points at 45 dB, full points at 25', swing: 'from 45 dB to 25' },
  running: {
    name: 'running cost',
    worth: '0 points where a year is expensive, full points where it is free',
    swing: 'from an expensive year to a free one',
  },
  price: {
    name: 'price',
    worth: '0 points where it is expensive, full points where it is free',
    swing: 'from an expensive price to a gift',
  },
  build: {
    name: 'build',
    worth: '0 points at four faults found, full points at none',
    swing: 'from four faults to none',
  },
  evidence: {
    name: 'evidence',
    worth: '0 points for a guess, full points for a measured installed flow',
    swing: 'from a guess to a measured flow',
  },
} as const satisfies Readonly<Record<string, CriterionWords>>

/** Criteria that models are scored by, each from 0 (worst) to 1 (best). */
export type Criterion = keyof typeof TABLE
export const CRITERIA = Object.keys(TABLE) as readonly Criterion[]
/** Each criterion in words. */
export const CRITERION: Readonly<Record<Criterion, CriterionWords>> = TABLE
