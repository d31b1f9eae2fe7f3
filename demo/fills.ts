import { chamberWay, placeFill, type Fill, type FillBasis, type FillLayer } from '@ypsometer/core/fills/place'
import { GENERIC_MEDIA } from '@ypsometer/core/media/library'
import type { Medium } from '@ypsometer/core/media/medium'
import { idOf, NOTED_ON } from './ids'
import { chambersOf, modelIdOf } from './interior'
import type { Truth } from './truth'

const MEDIA = {
  coarse: 'Coarse foam, 10 ppi',
  medium: 'Medium foam, 20 ppi',
  finefoam: 'Fine foam, 45 ppi',
  fine: 'Fine pad',
  floss: 'Floss, loose',
  rings: 'Ceramic rings',
  sintered: 'Sintered glass rings',
  spheres: 'Sintered spheres, 15 mm',
  lava: 'Lava gravel, 8 mm',
  moving: 'Moving media',
  cartridge: 'House cartridge, floss and carbon',
  carbon: 'Activated carbon, 3 mm',
} as const
type Key = keyof typeof MEDIA

/** The café's own cartridge: not in the library as it ships, so the bench entered it. */
export const HOUSE_CARTRIDGE: Medium = {
  ...(GENERIC_MEDIA.find((m) => m.form === 'cartridge') as Medium),
  id: idOf('medium-house-cartridge'),
  name: MEDIA.cartridge,
  fibre: 3e-5,
  solidity: 0.06,
  claimedSurface: null,
  priceMinor: 520,
  currency: 'EUR',
  pricedOn: NOTED_ON,
  source: 'entered by the bench: cut open and measured',
}

/** All media the demo bench has. */
export const BENCH_MEDIA: readonly Medium[] = [...GENERIC_MEDIA, HOUSE_CARTRIDGE]

type Amount = number | 'rest'
/** A layer: chamber, medium, mm of it (or the rest of the chamber), and what is unusual about it. */
type Spec = readonly [chamber: string, key: Key, mm: Amount, more?: Partial<FillLayer>]

interface Arrangement {
  readonly name: string
  readonly basis: FillBasis
  readonly layers: readonly Spec[]
}

const bag = (gap = 3): Partial<FillLayer> => ({ bagged: true, gap: gap / 1000, crossed: true })

const ARRANGEMENTS: Readonly<Record<string, readonly Arrangement[]>> = {
  'Ledger 700': [
    {
      name: 'Supplied',
      basis: 'as-shipped',
      layers: [
        ['Lower tray', 'coarse', 30],
        ['Lower tray', 'fine', 20],
        ['Middle tray', 'sintered', 'rest', bag(2)],
        ['Upper tray', 'sintered', 'rest', bag(2)],
      ],
    },
    {
      name: 'Loose rings',
      basis: 'proposed',
      layers: [
        ['Settling space', 'rings', 'rest'],
        ['Lower tray', 'coarse', 30],
        ['Lower tray', 'fine', 20],
        ['Middle tray', 'sintered', 'rest'],
        ['Upper tray', 'sintered', 'rest'],
      ],
    },
  ],
  'Torrent 1400': [
    {
      name: 'Supplied',
      basis: 'as-shipped',
      layers: [
        ['Lower tray', 'coarse', 30],
        ['Lower tray', 'rings', 30, { bagged: true, gap: 0.005 }],
        ['Middle tray', 'sintered', 'rest', { bagged: true, gap: 0.005 }],
        ['Upper tray', 'medium', 30],
        ['Upper tray', 'fine', 20, { gap: 0.001 }],
        ['Upper tray', 'carbon', 'rest', { bagged: true, gap: 0.005 }],
      ],
    },
    {
      name: 'Fine pad below the media',
      basis: 'proposed',
      layers: [
        ['Lower tray', 'coarse', 30],
        ['Lower tray', 'fine', 20],
        ['Middle tray', 'sintered', 'rest'],
        ['Upper tray', 'sintered', 'rest'],
      ],
    },
  ],
  'Plainbody 1000': [
    {
      name: 'Supplied',
      basis: 'as-shipped',
      layers: [
        ['Lower tray', 'coarse', 'rest', { gap: 0.004 }],
        ['Middle tray', 'medium', 'rest', { gap: 0.004 }],
        ['Upper tray', 'finefoam', 30, { gap: 0.004 }],
        ['Upper tray', 'lava', 'rest', bag(4)],
      ],
    },
    {
      name: 'Two pads, the rest sintered',
      basis: 'proposed',
      layers: [
        ['Lower tray', 'coarse', 30],
        ['Lower tray', 'fine', 20],
        ['Middle tray', 'sintered', 'rest'],
        ['Upper tray', 'sintered', 'rest'],
      ],
    },
  ],
  'Terrace 1200': [
    {
      name: 'Supplied',
      basis: 'as-shipped',
      layers: [
        ['Lower tray', 'coarse', 30],
        ['Lower tray', 'medium', 20],
        ['Lower tray', 'fine', 20],
        ['Middle tray', 'rings', 'rest'],
        ['Upper tray', 'sintered', 'rest'],
      ],
    },
    {
      name: 'Pads cut to the wall',
      basis: 'variant',
      layers: [
        ['Lower tray', 'coarse', 30, { sealed: true }],
        ['Lower tray', 'fine', 20, { sealed: true }],
        ['Middle tray', 'sintered', 'rest'],
        ['Upper tray', 'sintered', 'rest'],
      ],
    },
  ],
  'Gale HB': [
    {
      name: 'Supplied',
      basis: 'as-shipped',
      layers: [
        ['Cartridge slot', 'cartridge', 14],
        ['Media basket', 'sintered', 'rest', { gap: 0.002 }],
      ],
    },
    {
      name: 'Cartridge after four weeks',
      basis: 'variant',
      layers: [
        ['Cartridge slot', 'cartridge', 14, { fouled: 0.45 }],
        ['Media basket', 'sintered', 'rest', { gap: 0.002 }],
      ],
    },
  ],
  'Triptych 600': [
    {
      name: 'Supplied',
      basis: 'as-shipped',
      layers: [
        ['Coarse compartment', 'medium', 'rest'],
        ['Middle compartment', 'fine', 40],
        ['Middle compartment', 'sintered', 'rest', { gap: 0.002 }],
        ['Upper compartment', 'carbon', 'rest', { gap: 0.002 }],
      ],
    },
    {
      name: 'Fine pad out',
      basis: 'variant',
      layers: [
        ['Coarse compartment', 'medium', 'rest'],
        ['Middle compartment', 'sintered', 29, { gap: 0.002 }],
        ['Upper compartment', 'carbon', 'rest', { gap: 0.002 }],
      ],
    },
  ],
  'Mop 300': [{ name: 'Supplied', basis: 'as-shipped', layers: [['Sponge', 'medium', 'rest']] }],
  'Bellows S2': [
    {
      name: 'Supplied',
      basis: 'as-shipped',
      layers: [
        ['Left sponge', 'medium', 'rest'],
        ['Right sponge', 'medium', 'rest'],
      ],
    },
  ],
  'Coracle A1': [
    {
      name: 'Supplied',
      basis: 'as-shipped',
      layers: [
        ['Floss', 'floss', 'rest', { gap: 0.001 }],
        ['Gravel', 'lava', 'rest'],
      ],
    },
  ],
  'Whirlpot F1': [{ name: 'Supplied', basis: 'as-shipped', layers: [['Moving media', 'moving', 0.5 * 176]] }],
  'Undercroft 90': [
    {
      name: 'Supplied',
      basis: 'as-shipped',
      layers: [
        ['Sock', 'floss', 8],
        ['Media chamber', 'coarse', 30],
        ['Media chamber', 'sintered', 120],
      ],
    },
  ],
}

/** The named arrangements of a demo model's body. */
export function fillsOf(t: Truth): readonly Fill[] {
  const chambers = chambersOf(t)
  return (ARRANGEMENTS[t.name] ?? []).map(({ name, basis, layers }) => {
    const out: FillLayer[] = []
    for (const [chamberName, key, mm, more] of layers) {
      const chamber = chambers.find((c) => c.name === chamberName)
      const medium = BENCH_MEDIA.find((m) => m.name === MEDIA[key])
      if (!chamber || !medium) throw new Error(`${t.name}: no ${chamberName} or ${MEDIA[key]}`)
      const used = placeFill(t.kind, [chamber], { layers: out }, BENCH_MEDIA).chambers[0]
      const rest = used ? used.free : chamberWay(t.kind, chamber).length
      out.push({
        id: `l${out.length + 1}`,
        chamberId: chamber.id,
        mediumId: medium.id,
        measure: 'height',
        amount: mm === 'rest' ? Math.floor(rest * 1000 + 1e-6) / 1000 : mm / 1000,
        bagged: false,
        gap: 0,
        crossed: true,
        sealed: false,
        fouled: 0,
        ...more,
      })
    }
    return { id: idOf(`${modelIdOf(t)}-fill-${name}`), name, basis, layers: out }
  })
}
