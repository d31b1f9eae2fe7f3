import { meetsFigure, bypassFigure, sideFigure } from '../figures'
import { agrees, nameOf } from '../../figures'
import type { LayerFlow } from '../outcome'
import {
  aboutTheLine,
  ALL,
  at,
  BYPASS_LIMIT,
  FINE_BYPASS_LIMIT,
  gapOf,
  lengthFigure,
  low,
  roundIt,
  said,
  title,
} from './common'
import type { Rule } from './types'

/** Share of the water that must meet biological media (common practice, no source). */
const MEETS_LIMIT = 0.7

/** Rules on water that goes round: gaps, rims, weirs. */
export const BYPASS_RULES: readonly Rule[] = [
  {
    id: 'fine-sealed',
    title: 'Fine pad sealed at its edge',
    looksAt: 'the share of water that bypasses each fine layer',
    why: 'A gap resists far less than a fine pad. Two millimetres let most of the water past.',
    schools: ALL,
    severity: 'fault',
    weight: 5,
    check: ({ outcome: { layers } }) =>
      layers
        .filter((l) => l.placed.medium.job === 'fine' && gapOf(l) > 0 && l.bypassFraction > FINE_BYPASS_LIMIT)
        .map((l) => roundIt(l, FINE_BYPASS_LIMIT)),
  },
  {
    id: 'bypass-share',
    title: 'Little bypass at any layer',
    looksAt: 'the share of water that bypasses every other layer',
    why: 'Water that bypasses a layer is not filtered by it.',
    schools: ALL,
    severity: 'caution',
    weight: 3,
    check: ({ outcome: { layers } }) => {
      // A bag never fills its tray; where the next layer crosses the gap, nothing is left to cut.
      const crossed = (l: LayerFlow): boolean =>
        l.placed.layer.bagged && l.placed.layer.crossed && l.placed.gap > 0 && l !== layers.at(-1)
      const past = layers.filter((l) => gapOf(l) > 0 && l.bypassFraction > BYPASS_LIMIT && !crossed(l))
      // One gap round a tray passes all that is in it: it is said once, of its fine pad where it has one.
      const byWall = past.filter((l) => l.placed.gap === 0)
      const spokesman = (l: LayerFlow): LayerFlow | undefined => {
        const same = byWall.filter((x) => x.chamber === l.chamber)
        return same.find((x) => x.placed.medium.job === 'fine') ?? same[0]
      }
      return past
        .filter((l) => l.placed.medium.job !== 'fine' && (l.placed.gap > 0 || spokesman(l) === l))
        .map((l) => roundIt(l, BYPASS_LIMIT))
    },
  },
  {
    id: 'above-rim',
    title: 'No layer above the rim',
    looksAt: 'how far the stack exceeds the fill height',
    why: 'The stack rattles, the lid does not seat, and water bypasses it.',
    schools: ALL,
    severity: 'fault',
    weight: 4,
    check: ({ outcome: { layers } }) =>
      layers
        .filter((l) => l.placed.over > 0)
        .map((l) => ({
          ...at(l),
          sentence: [
            `${title(l)} ${agrees(l.placed.medium.name, 'stands', 'stand')} `,
            said(lengthFigure(`over-${l.placed.layer.id}`, 'Above the fill height', l.placed.over)),
            ` above the rim of ${nameOf(l.chamber.chamber.name)}.`,
          ],
          cure: ['Use less of it, or a thinner pad.'],
        })),
  },
  {
    id: 'gap-crossed',
    title: 'The next layer covers gaps at media bags',
    looksAt: 'bagged layers with an open gap',
    why: 'A mesh bag leaves a gap at the sides. The next layer must cover it, or water bypasses both.',
    schools: ALL,
    severity: 'caution',
    weight: 2,
    check: ({ outcome: { layers } }) =>
      layers.flatMap((l, i) => {
        const next = layers[i + 1]
        if (!l.placed.layer.bagged || l.placed.layer.crossed || !next || next.chamber !== l.chamber) return []
        return [
          {
            ...at(l),
            sentence: [
              `The gap beside the bag of ${low(l)} runs on past ${low(next)}: `,
              said(bypassFigure(next)),
              ' of the water bypasses that too.',
            ],
            cure: [`Cut the ${low(next)} to cover the gap.`],
          },
        ]
      }),
  },
  {
    id: 'cartridge-overflow',
    title: 'No water over the cartridge',
    looksAt: 'the flow over each weir or relief flap',
    why: 'Once the cartridge clogs, water spills over it unfiltered, and nothing shows outside.',
    schools: ALL,
    severity: 'fault',
    weight: 5,
    check: ({ outcome }) =>
      outcome.sides
        .filter((s) => s.part.what === 'spill' && s.share > 0.001)
        .map((s) => ({
          chamberId: s.part.chamberId,
          sentence: [said(sideFigure(outcome, s)), ' of the water spills over the cartridge unfiltered.'],
          cure: ['Rinse or replace it. A coarse sponge on the intake keeps it open longer.'],
        })),
  },
  {
    id: 'water-meets-media',
    title: 'Most of the water reaches the bio media',
    looksAt: 'the share of water that reaches the bio media',
    why: 'Water that bypasses every layer returns unfiltered.',
    schools: ALL,
    severity: 'fault',
    weight: 4,
    check: ({ outcome: o }) =>
      o.layers.some((l) => l.counts) && o.meetsMedia < MEETS_LIMIT
        ? [
            {
              sentence: [
                'Only ',
                said(meetsFigure(o)),
                ` of the water reaches the bio media.${aboutTheLine(o.meetsMedia, MEETS_LIMIT)}`,
              ],
            },
          ]
        : [],
  },
]
