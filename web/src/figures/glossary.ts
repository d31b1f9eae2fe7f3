import type { Sentence } from '@ypsometer/core/figures/figure'

interface Term {
  readonly term: string
  /** Its other forms, as they stand in a sentence. */
  readonly forms?: readonly string[]
  readonly meaning: Sentence
}

/** One term for each thing, with what it means here; its numbers in the reader’s units. */
export const GLOSSARY: readonly Term[] = [
  {
    term: 'Claim',
    forms: ['claims'],
    meaning: ['What the label states, copied as printed. Not checked yet.'],
  },
  {
    term: 'Supports',
    forms: ['support', 'supported'],
    meaning: ['Largest tank the filter is good for, by the house’s sizing rules, at one stocking.'],
  },
  { term: 'Limit', meaning: ['What sets that maximum: media, bioload, circulation or oversizing.'] },
  {
    term: 'Sizing rule',
    forms: ['sizing rules'],
    meaning: ['A way to size a tank: media weight, bioload balance, minimum circulation, oversizing.'],
  },
  {
    term: 'Layering rule',
    forms: ['layering rules'],
    meaning: ['An opinion on layer order: mechanical first, fine pad last, or an external pre-filter.'],
  },
  {
    term: 'House rules',
    meaning: ['Your choices: which rules count, in which order, and when to maintain.'],
  },
  {
    term: 'Stocking',
    meaning: ['The animals and how many: light, normal, heavy, marine, turtles, delicate.'],
  },
  {
    term: 'Media setup',
    forms: ['media setups'],
    meaning: ['The media in the filter and their order: as supplied, as recommended, or a variant.'],
  },
  {
    term: 'Mechanical media',
    forms: ['mechanical filtration', 'mechanical layers', 'mechanical layer'],
    meaning: ['Foam, floss and pads that hold back dirt.'],
  },
  { term: 'Bio media', meaning: ['Porous media that house the bacteria.'] },
  { term: 'Mature media', meaning: ['Media that already hold working bacteria.'] },
  {
    term: 'Cycled',
    forms: ['cycle', 'cycles', 'cycling'],
    meaning: ['Bacteria process all the waste: a test kit reads no ammonia and no nitrite.'],
  },
  {
    term: 'Bypass',
    forms: ['bypasses'],
    meaning: ['Water that passes beside a layer instead of through it.'],
  },
  {
    term: 'Clogged',
    forms: ['clogging', 'clogs'],
    meaning: ['So full of dirt that the water hardly passes.'],
  },
  {
    term: 'Head',
    meaning: [
      'Pressure of the pump, told as the height of water it can hold up. ',
      { si: 1.5, dimension: 'head' },
      ' of head lifts water that high, with no flow left.',
    ],
  },
  {
    term: 'Head loss',
    forms: ['head losses'],
    meaning: ['Head used up by hoses, fittings and media at the flow that runs.'],
  },
  { term: 'Maximum head', meaning: ['Height at which the flow stops.'] },
  {
    term: 'Rated flow',
    meaning: ['Flow on the label: usually empty, without hoses, at zero head.'],
  },
  {
    term: 'Installed flow',
    meaning: ['Flow with media and plumbing in place. This is what the tank gets.'],
  },
  { term: 'Plumbing', meaning: ['Hoses, taps, strainer and outlet, with their heights.'] },
  {
    term: 'Turnover',
    forms: ['turnovers'],
    meaning: [
      'How often the flow moves the tank’s water in an hour: ',
      { si: 600 / 3.6e6, dimension: 'flow' },
      ' in ',
      { si: 0.1, dimension: 'volume' },
      ' is 6.',
    ],
  },
  { term: 'Teardown', meaning: ['Taking the filter apart: parts, removal order and time.'] },
  {
    term: 'Check-up',
    forms: ['check-ups'],
    meaning: ['One look at a filter in its long-term test: flow, dirt, water and wear.'],
  },
  {
    term: 'Filter swap',
    meaning: ['Replacing a running filter without losing the bacteria.'],
  },
  {
    term: 'Uncertainty (±)',
    forms: ['uncertainty'],
    meaning: ['Range that holds the true value 19 times out of 20.'],
  },
]
