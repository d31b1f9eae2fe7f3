import type { Tank } from '@ypsometer/contract'

type DemoTank = Partial<Omit<Tank, 'shape' | 'stockClassId'>> &
  Pick<Tank, 'name' | 'place' | 'shape' | 'height' | 'waterLevel' | 'stockClassId'>

const box = (
  name: string,
  place: string,
  l: number,
  w: number,
  h: number,
  stockClassId: string,
  more: Partial<Tank> = {},
): DemoTank => ({
  name,
  place,
  shape: 'box',
  length: l,
  width: w,
  height: h,
  waterLevel: Math.round((h - 0.03) * 1000) / 1000,
  stockClassId,
  ...more,
})

/** The tanks the Saltery Row bench looks after. Invented, like the island. */
export const TANKS: readonly DemoTank[] = [
  box('Dentist, front window', 'Saltery Row 4', 0.8, 0.35, 0.4, 'normal', {
    substrateDepth: 0.04,
    decorVolume: 0.004,
  }),
  box('Dentist, children’s corner', 'Saltery Row 4', 0.45, 0.27, 0.3, 'light', { substrateDepth: 0.05 }),
  box('Ferry café, counter', 'Ferry terminal', 1.2, 0.4, 0.5, 'heavy', {
    substrateDepth: 0.03,
    decorVolume: 0.012,
  }),
  box('Ferry café, shrimp', 'Ferry terminal', 0.3, 0.3, 0.3, 'light', { substrateDepth: 0.06 }),
  box('Ferry hall, long tank', 'Ferry terminal', 1.8, 0.6, 0.6, 'normal', {
    substrateDepth: 0.05,
    decorVolume: 0.03,
  }),
  {
    name: 'Museum lobby, column',
    place: 'Island museum',
    shape: 'cylinder',
    diameter: 0.7,
    height: 1.1,
    waterLevel: 1.05,
    substrateDepth: 0.06,
    stockClassId: 'normal',
  },
  {
    name: 'Museum, bowed front',
    place: 'Island museum',
    shape: 'bow-front',
    length: 1.2,
    width: 0.4,
    bowWidth: 0.52,
    height: 0.55,
    waterLevel: 0.52,
    substrateDepth: 0.05,
    decorVolume: 0.01,
    stockClassId: 'light',
  },
  box('Museum, turtle pond', 'Island museum', 1.5, 0.7, 0.5, 'turtle', {
    waterLevel: 0.3,
    decorVolume: 0.02,
  }),
  {
    name: 'Optician, corner',
    place: 'Saltery Row 11',
    shape: 'corner',
    side: 0.7,
    endPanel: 0.25,
    front: 'curved',
    height: 0.5,
    waterLevel: 0.47,
    substrateDepth: 0.05,
    stockClassId: 'normal',
  },
  box('Notary, reef', 'Saltery Row 2', 0.9, 0.5, 0.5, 'marine', { substrateDepth: 0.02, decorVolume: 0.02 }),
  box('Vet, quarantine', 'Quay Lane', 0.6, 0.3, 0.35, 'normal'),
  box('Bench room, goldfish', 'Saltery Row 9', 1.0, 0.45, 0.5, 'heavy', { substrateDepth: 0.02 }),
]
