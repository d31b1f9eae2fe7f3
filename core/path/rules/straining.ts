import { agrees } from '../../figures'
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
  title,
} from './common'
import type { Rule } from './types'

/** Rules on what strains, where, and how much of it there is. */
export const STRAINING_RULES: readonly Rule[] = [
  {
    id: 'strain-before-media',
    title: 'All mechanical layers before the bio media',
    looksAt: 'mechanical layers after the first bio layer',
    why: 'Dirt caught after the media has already clogged the media.',
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
              `No mechanical layer before the ${low(layers[first] as LayerFlow)}, so all dirt goes into the media.`,
            ],
            cure: ['Put a coarse and a fine pad before it.'],
          },
        ]
      const best = Math.max(-1, ...ahead.map(fineness))
      const behind = layers.slice(first).filter((l) => strains(l) && fineness(l) > best)
      if (!behind.length && best < FINENESS.fine)
        return [
          {
            ...at(layers[first] as LayerFlow),
            sentence: [
              `No fine layer before the ${low(layers[first] as LayerFlow)}, so fine dirt ends in the media.`,
            ],
            cure: ['Put a fine pad between them.'],
          },
        ]
      const met = layers[first] as LayerFlow
      return behind.map((l) => ({
        ...at(l),
        sentence: [
          `${title(l)} ${agrees(l.placed.medium.name, 'sits', 'sit')} after the bio media: `,
          said(meetsFirst(met)),
          ' of the dirt it should catch reaches the media first.',
        ],
        cure: [`Put the ${low(l)} before the media.`],
      }))
    },
  },
  {
    id: 'nothing-fine-after',
    title: 'No fine pad after the media',
    looksAt: 'fine pads after the last bio layer',
    why: 'A fine pad at the end only catches dirt that has already passed the media. Full, it chokes the flow.',
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
            `${title(l)} ${agrees(l.placed.medium.name, 'sits', 'sit')} after the bio media: too late for the dirt that has passed them.`,
          ],
          cure: ['Move it before the media, or remove it.'],
        }))
    },
  },
  {
    id: 'polish-last',
    title: 'A fine pad as the last layer',
    looksAt: 'the last layer of all',
    why: 'It removes the last haze and is swapped without touching the rest.',
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
          sentence: [`The last layer is ${low(last)}, not a fine pad.`],
          cure: ['Put a fine pad on top.'],
        },
      ]
    },
  },
  {
    id: 'coarse-to-fine',
    title: 'Coarse, then medium, then fine',
    looksAt: 'the order of the mechanical layers',
    why: 'A finer layer before a coarser one clogs first and leaves the coarser one idle.',
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
            sentence: [`No coarse layer before the ${low(first)}, so it clogs first.`],
            cure: ['Put a coarse foam before it.'],
          },
        ]
      return straining.flatMap((l, i) => {
        const finer = straining.slice(0, i).find((x) => fineness(x) > fineness(l))
        return finer
          ? [
              {
                ...at(l),
                sentence: [
                  `${title(l)} ${agrees(l.placed.medium.name, 'sits', 'sit')} after the finer ${low(finer)} with nothing left to catch.`,
                ],
                cure: [`Put the ${low(l)} before the ${low(finer)}.`],
              },
            ]
          : []
      })
    },
  },
  {
    id: 'media-low',
    title: 'Bio media lowest, mechanical filtration outside',
    looksAt: 'mechanical layers inside the filter',
    why: 'With an external pre-filter the filter is opened a few times a year, and its lowest space holds media.',
    schools: ['prefilter-low'],
    severity: 'caution',
    weight: 3,
    excludes: ['polish-last'],
    check: ({ outcome: { layers } }) =>
      layers
        .filter((l) => strains(l) && l.chamber.chamber.role !== 'pre-filter')
        .map((l) => ({
          ...at(l),
          sentence: [`Mechanical layer inside the filter: ${low(l)}.`],
          cure: ['Use the pre-filter, and fill its place with bio media.'],
        })),
  },
  {
    id: 'foam-for-media',
    title: 'No foam where bio media could be',
    looksAt: 'mechanical share of the media space',
    why: 'One or two mechanical layers are enough. More foam takes space from the bio media.',
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
        label: 'Media space used by mechanical layers',
        value: straining / room,
        dimension: 'ratio',
        unit: '%',
        provenance: 'computed',
        formula: 'mechanical layers ÷ media space',
        working: [
          put('straining', 'foam, pads and floss in trays', straining, 'volume', 'computed'),
          put('room', 'trays and compartments, up to the fill height', room, 'volume', 'computed'),
        ],
      }
      return [
        {
          ...at(most),
          sentence: [
            'Mechanical layers take ',
            said(share),
            ` of the media space.${aboutTheLine(share.value, FOAM_LIMIT)}`,
          ],
          cure: ['One coarse and one fine layer are enough. Give the rest to bio media.'],
        },
      ]
    },
  },
]
