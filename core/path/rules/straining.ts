import { FILTERS } from '../../kinds'
import { put, type Figure } from '../../figures'
import type { LayerFlow } from '../outcome'
import {
  aboutTheLine,
  ALL,
  at,
  biological,
  FINENESS,
  fineness,
  FOAM_LIMIT,
  hasSponge,
  low,
  meetsFirst,
  said,
  strains,
} from './common'
import type { Rule } from './types'

/** Rules on what strains, where, and how much of it there is. */
export const STRAINING_RULES: readonly Rule[] = [
  {
    id: 'strain-before-media',
    title: 'Straining complete ahead of the biological media',
    looksAt: 'which straining layers stand behind the first biological one',
    why: 'What is strained behind the media has fouled the media first.',
    schools: ['strain-first', 'prefilter-low'],
    severity: 'fault',
    weight: 5,
    check: ({ outcome }) => {
      const { layers } = outcome
      const first = layers.findIndex(biological)
      // Moving media in a pot turned by air shed what settles on them.
      if (first < 0 || FILTERS[outcome.case.kind].mediaMove) return []
      const ahead = layers.slice(0, first).filter(strains)
      if (!ahead.length && hasSponge(outcome)) return []
      if (!ahead.length)
        return [
          {
            ...at(layers[first] as LayerFlow),
            sentence: [
              `Nothing strains the water ahead of ${low(layers[first] as LayerFlow)}: all the dirt goes into the media.`,
            ],
            cure: ['A coarse and a fine pad before it.'],
          },
        ]
      const best = Math.max(-1, ...ahead.map(fineness))
      const behind = layers.slice(first).filter((l) => strains(l) && fineness(l) > best)
      if (!behind.length && best < FINENESS.fine)
        return [
          {
            ...at(layers[first] as LayerFlow),
            sentence: [
              `Nothing fine strains ahead of ${low(layers[first] as LayerFlow)}: what passes the foam ends in the media.`,
            ],
            cure: ['A fine pad between them.'],
          },
        ]
      const met = layers[first] as LayerFlow
      return behind.map((l) => ({
        ...at(l),
        sentence: [
          `${l.placed.medium.name} stands behind the media: `,
          said(meetsFirst(met)),
          ' of what it would have caught meets them first.',
        ],
        cure: [`${l.placed.medium.name} below the media.`],
      }))
    },
  },
  {
    id: 'nothing-fine-after',
    title: 'Nothing fine after the media',
    looksAt: 'fine pads behind the last biological layer',
    why: 'A fine pad at the end catches only what has already passed through the media, and chokes the flow when it fills.',
    schools: ['strain-first', 'prefilter-low'],
    severity: 'caution',
    weight: 3,
    check: ({ outcome: { layers } }) => {
      const last = layers.findLastIndex(biological)
      if (last < 0) return []
      return layers
        .slice(last + 1)
        .filter((l) => l.placed.medium.job === 'fine')
        .map((l) => ({
          ...at(l),
          sentence: [
            `${l.placed.medium.name} stands after the media: it traps only what has fouled them first.`,
          ],
          cure: ['Move it below the media, or take it out.'],
        }))
    },
  },
  {
    id: 'polish-last',
    title: 'A fine pad as the last thing',
    looksAt: 'the last layer of all',
    why: 'Swapped without touching the rest, behind media that are already protected, it takes out the last haze.',
    schools: ['polish-last'],
    severity: 'caution',
    weight: 3,
    excludes: ['nothing-fine-after'],
    check: ({ outcome: { layers } }) => {
      const last = layers.at(-1)
      if (!last || last.placed.medium.job === 'fine') return []
      return [
        {
          ...at(last),
          sentence: [`The last thing the water meets is ${low(last)}, not a fine pad.`],
          cure: ['A fine pad on top.'],
        },
      ]
    },
  },
  {
    id: 'coarse-to-fine',
    title: 'Coarse, then medium, then fine',
    looksAt: 'the order of the straining layers',
    why: 'A finer layer ahead of a coarser one blinds first and leaves the coarser one idle.',
    schools: ALL,
    severity: 'caution',
    weight: 3,
    check: ({ outcome: { layers } }) => {
      const straining = layers.filter(strains)
      const [first] = straining
      if (
        first &&
        fineness(first) === FINENESS.fine &&
        first.placed.medium.form !== 'cartridge' &&
        first.chamber.chamber.role !== 'pre-filter'
      )
        return [
          {
            ...at(first),
            sentence: [`Nothing coarser stands ahead of ${low(first)}: it blinds first.`],
            cure: ['A coarse foam before it.'],
          },
        ]
      return straining.flatMap((l, i) => {
        const finer = straining.slice(0, i).find((x) => fineness(x) > fineness(l))
        return finer
          ? [
              {
                ...at(l),
                sentence: [
                  `${l.placed.medium.name} comes after the finer ${low(finer)}, so it strains nothing.`,
                ],
                cure: [`${l.placed.medium.name} ahead of ${low(finer)}.`],
              },
            ]
          : []
      })
    },
  },
  {
    id: 'media-low',
    title: 'Biological media lowest, straining outside',
    looksAt: 'straining layers inside the body',
    why: 'With all straining in an external pre-filter the body opens a few times a year, and its lowest space carries media.',
    schools: ['prefilter-low'],
    severity: 'caution',
    weight: 3,
    excludes: ['polish-last'],
    check: ({ outcome: { layers } }) =>
      layers
        .filter((l) => strains(l) && l.chamber.chamber.role !== 'pre-filter')
        .map((l) => ({
          ...at(l),
          sentence: [`${l.placed.medium.name} strains inside the body.`],
          cure: ['Strain in the pre-filter; fill its place with media.'],
        })),
  },
  {
    id: 'foam-for-media',
    title: 'No foam where media could be',
    looksAt: 'straining litres against all that may be filled',
    why: 'Straining needs a layer or two; more foam takes the litres that would carry the tank.',
    schools: ALL,
    severity: 'caution',
    weight: 3,
    check: ({ outcome }) => {
      const room = outcome.topology.chambers
        .filter((c) => c.chamber.role === 'tray' || c.chamber.role === 'compartment')
        .reduce((sum, c) => sum + c.usable, 0)
      const inThem = outcome.layers.filter(
        (l) => strains(l) && (l.chamber.chamber.role === 'tray' || l.chamber.chamber.role === 'compartment'),
      )
      const straining = inThem.reduce((sum, l) => sum + l.placed.volume, 0)
      const most = [...inThem].sort((a, b) => b.placed.volume - a.placed.volume)[0]
      if (!most || !room || straining / room <= FOAM_LIMIT) return []
      const share: Figure = {
        id: 'foam-share',
        label: 'Fillable litres that hold straining',
        value: straining / room,
        dimension: 'ratio',
        unit: '%',
        provenance: 'computed',
        formula: 'straining ÷ what may be filled',
        working: [
          put('straining', 'foam, pads and floss in trays', straining, 'volume', 'computed'),
          put('room', 'trays and compartments, as far as they may be filled', room, 'volume', 'computed'),
        ],
      }
      return [
        {
          ...at(most),
          sentence: [
            'Straining and rings take ',
            said(share),
            ` of what may be filled: litres that could hold media.${aboutTheLine(share.value, FOAM_LIMIT)}`,
          ],
          cure: ['One coarse and one fine layer strain as well; give the rest to biological media.'],
        },
      ]
    },
  },
]
