/** What can be missing of a verdict: where it is entered, what it is called, and what it would change. */
export const GAPS = {
  'rated-flow': {
    station: 'claims',
    what: 'Rated flow',
    changes: 'Without it, measured flow has nothing to compare with.',
  },
  'tank-max': {
    station: 'claims',
    what: 'Largest tank on the label',
    changes: 'Without it there is no claim to judge.',
  },
  'max-head': {
    station: 'claims',
    what: 'Maximum head',
    changes: 'Without it there is no pump curve from the label.',
  },
  hookup: {
    station: 'bench',
    what: 'Plumbing (hoses, fittings, heights)',
    changes: 'Without it no installed flow can be calculated.',
  },
  'empty-flow': {
    station: 'bench',
    what: 'Rated flow: empty, no hoses, zero head',
    changes: 'The only fair comparison with the label’s rated flow.',
  },
  'installed-flow': {
    station: 'bench',
    what: 'Installed flow, with the supplied media',
    changes: 'The verdict then rests on a measured flow.',
  },
  'head-series': {
    station: 'bench',
    what: 'Flow at three outlet heights or more',
    changes: 'The pump curve is then measured, not assumed.',
  },
  fill: {
    station: 'fill',
    what: 'Supplied media, layer by layer',
    changes: 'Without it we cannot tell what the media can support.',
  },
  'media-mass': {
    station: 'claims',
    what: 'Weight of the bio media',
    changes: 'The verdict rests mainly on media weight.',
  },
} as const
export type Gap = keyof typeof GAPS
export const GAP_IDS = Object.keys(GAPS) as [Gap, ...Gap[]]
