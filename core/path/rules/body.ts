import { FILTERS } from '../../kinds'
import { put, type Figure } from '../../figures'
import { isStraining } from '../../media'
import { jobFigure } from '../figures'
import { ALL, at, hasSponge, said, strains, strainsAt } from './common'
import type { LayerFlow } from '../outcome'
import type { Hit, Rule } from './types'

/** Carbon right after the fine pad, resin last: what is wrong with a chemical layer by that choice. */
function afterFine(layers: readonly LayerFlow[], i: number): readonly Hit[] {
  const l = layers[i]
  if (!l) return []
  const { name, form } = l.placed.medium
  if (form === 'resin')
    return layers.slice(i + 1).some((x) => x.placed.medium.job !== 'chemical')
      ? [{ ...at(l), sentence: [`${name} is not the last thing the water meets.`], cure: [`${name} last.`] }]
      : []
  const before = layers.slice(0, i).findLast((x) => x.placed.medium.job !== 'chemical')
  return before?.placed.medium.job === 'fine'
    ? []
    : [
        {
          ...at(l),
          sentence: [`${name} does not stand right after the fine pad.`],
          cure: [`${name} behind the fine pad; resin, if any, last.`],
        },
      ]
}

/** Rules on what else a body holds and where it draws from. */
export const BODY_RULES: readonly Rule[] = [
  {
    id: 'chemical-place',
    title: 'Chemical media in their place',
    looksAt: 'where carbon, resin and the like stand',
    why: 'Ahead of straining they clog; in a random place they cost flow and are forgotten when spent.',
    schools: ALL,
    severity: 'caution',
    weight: 2,
    check: ({ outcome: { layers }, chemical }) =>
      layers.flatMap((l, i) => {
        if (l.placed.medium.job !== 'chemical') return []
        const name = l.placed.medium.name
        if (chemical === 'none')
          return [
            {
              ...at(l),
              sentence: [`${name} in a settled tank: this house rule leaves chemical media out.`],
              cure: ['Use its litres for biological media.'],
            },
          ]
        if (chemical === 'last' && layers.slice(i + 1).some((x) => x.placed.medium.job !== 'chemical'))
          return [
            {
              ...at(l),
              sentence: [`${name} is not the last thing the water meets.`],
              cure: [`${name} last.`],
            },
          ]
        if (chemical === 'after-straining' && layers.slice(i + 1).some(strains))
          return [
            {
              ...at(l),
              sentence: [`${name} stands ahead of straining: it clogs with what should have been strained.`],
              cure: [`${name} behind all straining.`],
            },
          ]
        if (chemical === 'after-fine') return afterFine(layers, i)
        return []
      }),
  },
  {
    id: 'diffuser-in-void',
    title: 'A diffuser in the settling space',
    looksAt: 'an empty settling space under the media',
    why: 'Rings in it slow the swirl, so that coarse dirt settles and the flow comes up evenly. A choice, not a must: left empty, the space settles dirt as well.',
    schools: [],
    severity: 'note',
    weight: 1,
    check: ({ outcome }) =>
      outcome.topology.chambers
        .filter(
          (c) =>
            c.chamber.role === 'settling-void' && !c.layers.length && !FILTERS[outcome.case.kind].mediaMove,
        )
        .map((c) => ({
          chamberId: c.chamber.id,
          sentence: [
            `${c.chamber.name} is empty: `,
            said({
              id: `void-${c.chamber.id}`,
              label: c.chamber.name,
              value: c.usable,
              dimension: 'volume',
              provenance: 'computed',
              formula: 'A · L, as far as it may be filled',
              working: [
                put('L', 'length along the flow', c.length, 'length', 'measured'),
                put('A', 'area across the flow, cm²', c.area * 1e4, 'ratio', 'measured'),
              ],
            }),
            ' that rings could fill to slow the swirl.',
          ],
        })),
  },
  {
    id: 'contactor-bonus',
    title: 'A turning contactor is a bonus',
    looksAt: 'contactor wheels counted as media',
    why: 'A wheel will stop one day: count it as a bonus, never as capacity.',
    schools: ALL,
    severity: 'note',
    weight: 1,
    check: ({ outcome: { layers } }) =>
      layers
        .filter((l) => l.placed.medium.form === 'contactor')
        .map((l) => ({
          ...at(l),
          sentence: [`${l.placed.medium.name} is left out of the capacity: it is a bonus while it turns.`],
        })),
  },
  {
    id: 'pump-grit',
    title: 'The pump protected from grit',
    looksAt: 'what stands between the intake and the pump',
    why: 'Sand and snail shells score the magnet and the shaft.',
    schools: ALL,
    severity: 'caution',
    weight: 2,
    check: ({ outcome }) => {
      const { kind, chambers, hookup } = outcome.case
      const well = chambers.findIndex((c) => c.role === 'pump-well')
      const fills = outcome.topology.chambers
      const ahead = fills.slice(0, Math.max(0, well)).some((c) => c.layers.some((l) => isStraining(l.medium)))
      const guard = hookup?.segments.some((s) => strainsAt(s) !== null)
      const pump = chambers[well]
      if (!pump || ahead || guard || FILTERS[kind].byGravity) return []
      return [
        {
          chamberId: pump.id,
          sentence: ['Nothing stands between the intake and the pump: grit reaches the impeller.'],
          cure: ['A strainer or a coarse sponge on the intake.'],
        },
      ]
    },
  },
  {
    id: 'prefilter-reach',
    title: 'The pre-filter quick to reach',
    looksAt: 'seconds from the closed filter to the first straining layer',
    why: 'It is rinsed weekly: what takes long is not done.',
    schools: ['prefilter-low', 'strain-first'],
    severity: 'note',
    weight: 1,
    check: ({ outcome, reaches }) => {
      const reach = reaches.find((r) => r.reach === 'pre-filter') ?? reaches.find((r) => r.reach === 'pad')
      if (!reach || reach.seconds <= 60) return []
      const first = outcome.layers.find(strains)
      const time: Figure = {
        id: 'reach',
        label: `To ${reach.part.toLowerCase()}`,
        value: reach.seconds,
        dimension: 'time',
        provenance: 'measured',
        conditions: [`${reach.moves} moves of the hand`, 'from the strip log'],
      }
      return [
        {
          ...(first && at(first)),
          sentence: [
            'It takes ',
            said(time),
            ` and ${reach.moves} moves to reach the first straining layer.`,
          ],
        },
      ]
    },
  },
  {
    id: 'open-inlet',
    title: 'No open inlet for delicate animals',
    looksAt: 'what the intake ends in',
    why: 'Fry and shrimp go through a slotted strainer, and what swims weakly is held against an open end.',
    schools: ALL,
    severity: 'note',
    weight: 1,
    check: ({ outcome }) => {
      const { kind } = outcome.case
      if (!FILTERS[kind].intake) return []
      const outside = outcome.topology.chambers.find(
        (c) => c.chamber.role === 'pre-filter' && c.layers.length,
      )
      if (hasSponge(outcome) || outside) return []
      return [
        {
          sentence: ['The intake has no sponge: not with fry or shrimp in the tank.'],
          cure: ['A coarse sponge over the intake.'],
        },
      ]
    },
  },
  {
    id: 'some-media',
    title: 'Some biological media',
    looksAt: 'litres of media that count',
    why: 'Straining alone makes clear water, not safe water.',
    schools: ALL,
    severity: 'fault',
    weight: 5,
    check: ({ outcome: o }) =>
      o.weights.biologicalMass > 0
        ? []
        : [
            {
              sentence: [
                said(jobFigure(o, 'biological')),
                ' of biological media: what carries the tank is missing.',
              ],
              cure: ['Sintered media in every litre that straining can spare.'],
            },
          ],
  },
]
