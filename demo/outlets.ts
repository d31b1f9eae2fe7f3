import type { Fitted } from '@ypsometer/contract'

type Outlet = NonNullable<Fitted['outlets']>[number]

const outlet = (id: string, name: string, more: Partial<Outlet>): Outlet => ({
  id,
  name,
  kind: 'nozzle',
  aim: 'along',
  depth: 0.02,
  diameter: 0.014,
  holes: 1,
  spacing: 0.02,
  width: 0.1,
  ...more,
})

/** The ways for the water to come back that come in the box, the one in use first, and the inlet as it was measured. */
export const OUTLETS: Readonly<Record<string, Pick<Fitted, 'outlets' | 'inlet'>>> = {
  'Gale HB': {
    outlets: [
      outlet('lip', 'Wide lip', { kind: 'lip', depth: 0, width: 0.12 }),
      outlet('tab', 'Flow tab, aimed at the glass', { kind: 'lip', aim: 'glass', depth: 0, width: 0.16 }),
    ],
    inlet: { openArea: 0.0021, sponge: false },
  },
  'Torrent 1400': {
    outlets: [
      outlet('bar', 'Spray bar', {
        kind: 'spray-bar',
        diameter: 0.004,
        holes: 16,
        spacing: 0.018,
        depth: 0.01,
      }),
      outlet('nozzle', 'Directional nozzle', { diameter: 0.015, depth: 0.03 }),
    ],
    inlet: { openArea: 0.0034, sponge: false },
  },
  'Triptych 600': {
    outlets: [
      outlet('nozzle', 'Top nozzle', { depth: 0.03 }),
      outlet('bar', 'Spray bar', { kind: 'spray-bar', diameter: 0.004, holes: 12, spacing: 0.015 }),
      outlet('low', 'Nozzle, low down', { depth: 0.22 }),
    ],
    inlet: { openArea: 0.0028, sponge: false },
  },
}
