import { agrees } from '../../figures'
import { FILTERS } from '../../kinds'
import { nameOf, put, type Figure } from '../../figures'
import { isStraining } from '../../media'
import { jobFigure } from '../figures'
import { ALL, at, hasSponge, said, strains, strainsAt, title } from './common'
import type { LayerFlow } from '../outcome'
import type { Hit, Rule } from './types'

/** Carbon right after the fine pad, resin last: what is wrong with a chemical layer by that choice. */
function afterFine(layers: readonly LayerFlow[], i: number): readonly Hit[] {
  const l = layers[i]
  if (!l) return []
  const { name, form } = l.placed.medium
  if (form === 'resin')
    return layers.slice(i + 1).some((x) => x.placed.medium.job !== 'chemical')
      ? [{ ...at(l), sentence: [`${name} is not the last layer.`], cure: [`${name} last.`] }]
      : []
  const before = layers.slice(0, i).findLast((x) => x.placed.medium.job !== 'chemical')
  return before?.placed.medium.job === 'fine'
    ? []
    : [
        {
          ...at(l),
          sentence: [`${name} is not right after the fine pad.`],
          cure: [`${name} right after the fine pad; resin last.`],
        },
      ]
}

/** Rules on what else a body holds and where it draws from. */
export const BODY_RULES: readonly Rule[] = [
  {
    id: 'chemical-place',
    title: 'Chemical media in place',
    looksAt: 'where carbon, resin and the like sit',
    why: 'Before the mechanical layers they clog. Elsewhere they cost flow and are often left in when used up.',
    schools: ALL,
    severity: 'caution',
    weight: 2,
    check: ({ outcome: { layers }, chemical }) =>
      layers.flatMap((l, i) => {
        if (l.placed.medium.job !== 'chemical') return []
        const name = title(l)
        if (chemical === 'none')
          return [
            {
              ...at(l),
              sentence: [`${name} is not needed in an established tank (house rule).`],
              cure: ['Use the space for bio media.'],
            },
          ]
        if (chemical === 'last' && layers.slice(i + 1).some((x) => x.placed.medium.job !== 'chemical'))
          return [
            {
              ...at(l),
              sentence: [`${name} is not the last layer.`],
              cure: [`${name} last.`],
            },
          ]
        if (chemical === 'after-straining' && layers.slice(i + 1).some(strains))
          return [
            {
              ...at(l),
              sentence: [`${name} sits before the mechanical layers, so dirt clogs it.`],
              cure: [`${name} after all mechanical layers.`],
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
    why: 'Rings slow the swirl, so coarse dirt settles and the flow spreads. Optional: an empty space settles dirt too.',
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
              formula: 'A · L, up to the fill height',
              working: [
                put('L', 'length along the flow', c.length, 'length', 'measured'),
                put('A', 'area across the flow, cm²', c.area * 1e4, 'ratio', 'measured'),
              ],
            }),
            ' are free for rings that slow the swirl.',
          ],
        })),
  },
  {
    id: 'contactor-bonus',
    title: 'A contactor wheel is a bonus',
    looksAt: 'contactor wheels',
    why: 'A wheel can stop any day. Count it as a bonus, never as capacity.',
    schools: ALL,
    severity: 'note',
    weight: 1,
    check: ({ outcome: { layers } }) =>
      layers
        .filter((l) => l.placed.medium.form === 'contactor')
        .map((l) => ({
          ...at(l),
          sentence: [
            `${title(l)} ${agrees(l.placed.medium.name, 'is', 'are')} not counted: a bonus while turning.`,
          ],
        })),
  },
  {
    id: 'pump-grit',
    title: 'The pump protected from grit',
    looksAt: 'what sits between the intake and the pump',
    why: 'Sand and snail shells scratch the magnet and the shaft.',
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
          sentence: ['Nothing protects the pump: grit reaches the impeller.'],
          cure: ['Add a strainer or a coarse sponge on the intake.'],
        },
      ]
    },
  },
  {
    id: 'prefilter-reach',
    title: 'Quick access to the pre-filter',
    looksAt: 'seconds from the closed filter to the first mechanical layer',
    why: 'It is rinsed weekly. Slow work gets skipped.',
    schools: ['prefilter-low', 'strain-first'],
    severity: 'note',
    weight: 1,
    check: ({ outcome, reaches }) => {
      const reach = reaches.find((r) => r.reach === 'pre-filter') ?? reaches.find((r) => r.reach === 'pad')
      if (!reach || reach.seconds <= 60) return []
      const first = outcome.layers.find(strains)
      const time: Figure = {
        id: 'reach',
        label: `To ${nameOf(reach.part)}`,
        value: reach.seconds,
        dimension: 'time',
        provenance: 'measured',
        conditions: [`${reach.moves} hand movements`, 'from the teardown log'],
      }
      return [
        {
          ...(first && at(first)),
          sentence: [
            'Slow to service: the first mechanical layer takes ',
            said(time),
            ` and ${reach.moves} hand movements to reach.`,
          ],
        },
      ]
    },
  },
  {
    id: 'open-inlet',
    title: 'No open intake for delicate animals',
    looksAt: 'what the intake ends in',
    why: 'Fry and shrimp fit through a slotted strainer. Weak swimmers get stuck on an open end.',
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
          sentence: ['Open intake: add a sponge before keeping shrimp or fry.'],
          cure: ['Fit a coarse sponge on the intake.'],
        },
      ]
    },
  },
  {
    id: 'some-media',
    title: 'Some bio media',
    looksAt: 'litres of bio media',
    why: 'Mechanical media alone make clear water, not safe water.',
    schools: ALL,
    severity: 'fault',
    weight: 5,
    check: ({ outcome: o }) =>
      o.weights.biologicalMass > 0
        ? []
        : [
            {
              sentence: [said(jobFigure(o, 'biological')), ' of bio media: water stays clear but not safe.'],
              cure: ['Fill the free space with sintered media.'],
            },
          ],
  },
]
