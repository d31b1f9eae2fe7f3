import { meetsFigure, bypassFigure, sideFigure } from '../figures'
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
} from './common'
import type { Rule } from './types'

/** Share of the water that must meet biological media (common practice, no source). */
const MEETS_LIMIT = 0.7

/** Rules on water that goes round: gaps, rims, weirs. */
export const BYPASS_RULES: readonly Rule[] = [
  {
    id: 'fine-sealed',
    title: 'Fine pad sealed at its edge',
    looksAt: 'the share of water that goes round each fine layer',
    why: 'A fine pad resists far more than a gap beside it: two millimetres let most of the water round.',
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
    title: 'Little water round any layer',
    looksAt: 'the share of water that goes round every other layer',
    why: 'Water that goes round a layer is neither strained nor treated by it.',
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
    looksAt: 'how far the stack stands past what may be filled',
    why: 'The stack rattles, the lid does not seat, and water goes round it.',
    schools: ALL,
    severity: 'fault',
    weight: 4,
    check: ({ outcome: { layers } }) =>
      layers
        .filter((l) => l.placed.over > 0)
        .map((l) => ({
          ...at(l),
          sentence: [
            `${l.placed.medium.name} stands `,
            said(lengthFigure(`over-${l.placed.layer.id}`, 'Past what may be filled', l.placed.over)),
            ` past the rim of ${l.chamber.chamber.name.toLowerCase()}.`,
          ],
          cure: ['Less of it, or a thinner pad.'],
        })),
  },
  {
    id: 'gap-crossed',
    title: 'Gaps beside bags are crossed by the next layer',
    looksAt: 'bagged layers whose gap runs on',
    why: 'A mesh bag leaves a gap at the sides; the next layer must cover it, or the gap runs past both.',
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
              ' of the water goes round that too.',
            ],
            cure: [`Cut ${low(next)} to cover the gap.`],
          },
        ]
      }),
  },
  {
    id: 'cartridge-overflow',
    title: 'No water over the cartridge',
    looksAt: 'the flow over each weir or relief flap',
    why: 'Once the cartridge clogs past its sill, water spills over it untreated, and nothing shows outside.',
    schools: ALL,
    severity: 'fault',
    weight: 5,
    check: ({ outcome }) =>
      outcome.sides
        .filter((s) => s.part.what === 'spill' && s.share > 0.001)
        .map((s) => ({
          chamberId: s.part.chamberId,
          sentence: [said(sideFigure(outcome, s)), ' of the water spills over the cartridge untreated.'],
          cure: ['Rinse or change it; a coarse sponge on the intake keeps it open longer.'],
        })),
  },
  {
    id: 'water-meets-media',
    title: 'Most of the water meets the media',
    looksAt: 'the share of water that meets biological media at all',
    why: 'Water that slips past every layer comes back as it went in.',
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
                ` of the water meets biological media.${aboutTheLine(o.meetsMedia, MEETS_LIMIT)}`,
              ],
            },
          ]
        : [],
  },
]
