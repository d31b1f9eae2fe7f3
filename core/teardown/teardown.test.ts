import fc from 'fast-check'
import { CHECKLISTS, REACHES } from '../parts'
import {
  partsOf,
  partKind,
  printedItems,
  reaches,
  serviceScore,
  stripCautions,
  wayTo,
  type LoggedPart,
} from '.'
import { FILTER_KINDS } from '../kinds'

const log: readonly LoggedPart[] = [
  { name: 'Taps', moves: 2, seconds: 8, reach: null },
  { name: 'Head', moves: 4, seconds: 20, reach: null },
  { name: 'Basket', moves: 1, seconds: 4, reach: 'pre-filter' },
  { name: 'Fine pad', moves: 1, seconds: 3, reach: 'pad' },
  { name: 'Coarse pad', moves: 1, seconds: 3, reach: 'pad' },
  { name: 'Media', moves: 2, seconds: 12, reach: 'media' },
]

test('reach is what it takes from the closed filter up to and with the part; the first pad counts (added by hand)', () => {
  expect(reaches(log)).toMatchObject([
    { reach: 'pre-filter', part: 'Basket', parts: 3, moves: 7, seconds: 32 },
    { reach: 'pad', part: 'Fine pad', parts: 4, moves: 8, seconds: 35 },
    { reach: 'media', part: 'Media', parts: 6, moves: 11, seconds: 50 },
  ])
  expect(() => reaches([{ name: 'x', moves: -1, seconds: 1, reach: null }])).toThrow('parts[0].moves')
})

test('an impeller under the head is reached through the head, not through every tray (added by hand)', () => {
  const tree: readonly LoggedPart[] = [
    ...log.map((p) => ({ ...p, id: p.name, ...(p.name === 'Head' && { after: ['Taps'], back: 15 }) })),
    { id: 'Cover', name: 'Cover', moves: 1, seconds: 5, reach: null, after: ['Head'], back: 6 },
    {
      id: 'Impeller',
      name: 'Impeller',
      moves: 1,
      seconds: 4,
      reach: 'impeller',
      after: ['Cover'],
      cleaning: 40,
      back: 5,
    },
  ]
  const impeller = reaches(tree).find((r) => r.reach === 'impeller')
  // Taps 8, head 20, cover 5, impeller 4 s; back 15 + 6 + 5 s. In a line it would be all of 59 s.
  expect(impeller).toMatchObject({ parts: 4, moves: 8, seconds: 37, back: 26, cleaning: 40 })
  expect(impeller?.way.map((p) => p.name)).toEqual(['Taps', 'Head', 'Cover', 'Impeller'])
  // A part that is gone from the log holds nothing up.
  expect(reaches(tree.filter((p) => p.name !== 'Cover')).find((r) => r.reach === 'impeller')?.parts).toBe(1)
  // Named in a circle, each still counts once.
  expect(
    wayTo(
      tree.map((p) => (p.name === 'Taps' ? { ...p, after: ['Impeller'] } : p)),
      tree[7] as LoggedPart,
    ),
  ).toHaveLength(4)
})

test('service is 1 at the best times, 0 at the worst, falls with every second, and is unknown without a log', () => {
  const at = (seconds: number) => serviceScore([{ reach: 'pre-filter', seconds }])
  expect(at(10)).toBe(1)
  expect(at(180)).toBe(0)
  // Half way in the logarithm: √(10 · 180) = 42.4 s.
  expect(at(Math.sqrt(1800))).toBeCloseTo(0.5, 12)
  expect(serviceScore([])).toBeNull()
  fc.assert(
    fc.property(
      fc.double({ min: 1, max: 1000, noNaN: true }),
      fc.double({ min: 1, max: 3, noNaN: true }),
      (s, k) => {
        expect(at(s * k) ?? 1).toBeLessThanOrEqual(at(s) ?? 0)
      },
    ),
  )
})

test('moving a part later in the log never shortens the way to what lies behind it', () => {
  fc.assert(
    fc.property(fc.shuffledSubarray([...log], { minLength: log.length }), (order) => {
      for (const r of reaches(order)) {
        const index = order.findIndex((p) => p.name === r.part)
        expect(r.seconds).toBe(order.slice(0, index + 1).reduce((s, p) => s + p.seconds, 0))
      }
    }),
  )
})

test.each(FILTER_KINDS)(
  'the vocabulary of a %s has its own names, known checklists and something to reach',
  (kind) => {
    const parts = partsOf(kind)
    expect(new Set(parts.map((p) => p.name)).size).toBe(parts.length)
    for (const p of parts) expect(CHECKLISTS.map((c) => c.id)).toContain(p.checklist)
    expect(parts.some((p) => p.reach && REACHES.includes(p.reach))).toBe(true)
    for (const c of CHECKLISTS) expect(c.findings.filter((f) => f.good)).toHaveLength(1)
  },
)

test('a free name is a general part; a known one brings its checklist', () => {
  expect(partKind('canister', 'Odd bracket').checklist).toBe('general')
  expect(partKind('canister', ' main o-ring ').checklist).toBe('o-ring')
})

test('printed contents become a list to tick off', () => {
  expect(printedItems('2 trays, coarse pad ×1; hose 3 m,\n taps')).toEqual([
    '2 trays',
    'coarse pad ×1',
    'hose 3 m',
    'taps',
  ])
})

test('cautions come where they apply', () => {
  // A sump stays where it stands.
  expect(stripCautions('sump', [], 60).map((c) => c.id)).not.toContain('weight')
  const ids = (...a: Parameters<typeof stripCautions>) => stripCautions(...a).map((c) => c.id)
  // By what a part is, not by what it is called: a lamp's sleeve under any name, and nothing of a part named after one.
  expect(ids('canister', [{ checklist: 'quartz', material: 'glass', findings: [] }], 22)).toEqual([
    'mains',
    'siphon',
    'quartz',
    'sharp',
    'weight',
  ])
  expect(
    ids('air-sponge', [{ checklist: 'general', material: 'hard plastic', findings: ['sound'] }], null),
  ).toEqual(['mains'])
  expect(
    ids('internal', [{ checklist: 'clip', material: 'hard plastic', findings: ['cracked'] }], null),
  ).toEqual(['mains', 'sharp'])
  expect(stripCautions('air-sponge', [], null)[0]?.text).toContain('air pump')
})
