import { ADVICE_RULE } from '../advice'
import { canister, EUR, figure, lph, offered, use } from '../advice/candidates.fixture'
import { inline, sentenceText, type Figure } from '../figures'
import { STOCK_CLASSES } from '../tanks'
import { FILL } from '../judging/tests/tank'
import { outcomeOf } from '../path'
import { caseWith, layer, medium, NORMAL } from '../path/tests/support'
import { volumeAudit, type Chamber } from '../volumes'
import { figuresOf, type Block, type Section } from './blocks'
import { isBeholden } from './disclosure'
import { claimsSection, flowSection, tanksSection, verdictSection } from './findings'
import type { ReviewInput } from './input'
import { fillsSection, insideSection, pathSection, stripSection } from './inside'
import { cautionsSection, costSection, livingSection, upkeepSection, visitsSection } from './living'
import { shortened, sheetOf } from './sheet'

/** What a section says, block by block: its length, then its words; numbers as [id value]; rows of a table by |. */
const cell = (c: unknown): string =>
  c === null ? '–' : typeof c === 'string' ? c : `[${(c as Figure).id} ${(c as Figure).value}]`
const told = (s: Section): string[] =>
  s.blocks.flatMap((b: Block): string[] => {
    switch (b.kind) {
      case 'text':
        return [`${b.from} ${b.tone}: ${sentenceText(b.sentence, 'metric')}`]
      case 'numbers':
        return [`${b.from}: ${b.figures.map(cell).join(' ')}`]
      case 'table':
        return [
          `${b.from} head: ${b.head.join(' | ')}`,
          ...b.rows.map((r) => `${b.from}: ${r.map(cell).join(' | ')}`),
        ]
      default:
        return [`${b.from} ${b.kind}`]
    }
  })

const VERDICT = {
  words: 'Stretched', level: 'stretched', basis: 'measured', overclaim: null, supported: null, flow: null,
  ranges: [], claimedRange: { min: null, max: null }, reasons: [], missing: [], shipped: null, proposed: null,
} // prettier-ignore
const input = (more: object = {}, verdict: object = {}): ReviewInput =>
  ({
    on: '2026-11-26', maker: 'Quillon', name: 'Ledger', kind: 'canister', obtained: 'bought', disclosure: {},
    house: { name: 'Strain first', advice: { ...ADVICE_RULE, opens: { by: 'date', every: {} } } },
    stock: STOCK_CLASSES,
    assessment: { verdict: { ...VERDICT, ...verdict }, answers: { thumb: null, computed: null, measured: null }, findings: [], disagreements: [] },
    candidate: canister('Ledger', 1), chances: null, claims: [], errata: [], audit: null, path: null, parts: [], photos: [],
    chores: [], cautions: [], history: { visits: [], first: null, all: [] }, next: null,
    ...more,
  }) as unknown as ReviewInput // prettier-ignore

describe('verdict', () => {
  const flow = figure('flow', lph(500), { dimension: 'flow' })
  test('says its words with how far the claim goes, what it rests on, by whose rule, and what is not known', () => {
    const s = verdictSection(input({}, {
      overclaim: figure('overclaim', 1.5), supported: figure('supported', 0.08, { dimension: 'volume' }), flow,
      ranges: [{ stockClass: 'heavy', leading: 'balance' }, { stockClass: 'normal', leading: 'turnover' }],
      reasons: [{ id: 'r', tone: 'warning', sentence: ['Media are few.'] }],
      missing: [{ id: 'a', what: 'The Head' }, { id: 'b', what: 'Its media' }],
    })) // prettier-ignore
    const lines = told(s)
    expect([s.id, s.title]).toEqual(['verdict', 'Verdict'])
    expect(lines[0]).toMatch(/^card against: Stretched\. Label ÷ supported: 1\.5\.$/)
    expect(lines[1]).toBe(`card: [supported 0.08] [flow ${lph(500)}]`)
    expect(lines[2]).toMatch(
      /^page note: Based on the installed flow, measured here\. Sizing rule: minimum circulation\.$/,
    )
    expect(lines[3]).toMatch(
      /^whole note: Sizing rule minimum circulation: used by .* Based on .* Interest: /,
    )
    expect(lines.slice(4)).toEqual([
      'whole warning: Media are few.',
      'whole note: Not measured: the Head; its media.',
    ])
  })
  test('for what holds, against what does not, a note where it is open; nothing known is said as that', () => {
    const tone = (level: string) => told(verdictSection(input({}, { level })))[0]?.split(':')[0]
    expect(['holds', 'open', 'overclaimed'].map(tone)).toEqual(['card for', 'card note', 'card against'])
    expect(told(verdictSection(input({}, { basis: 'none' })))[1]).toBe('page note: No flow is known.')
    expect(told(verdictSection(input({}, { basis: 'none' })))).toHaveLength(2)
  })
  test('an erratum makes it provisional, on the card too', () => {
    const errata = [{ on: '2026-10-01', about: 'the vessel', text: 'it holds 4.9 L' }]
    expect(told(verdictSection(input({ errata })))).toContain(
      'card caution: Provisional: the vessel, found 1 Oct 2026: it holds 4.9 L.',
    )
  })
  test('one rule has no chance over several; the chance is of draws, with how many', () => {
    const chances = {
      tooHigh: 0.25,
      leading: 'media-mass',
      draws: 4000,
      overSchools: { tooHigh: 0.3 },
      schools: [{ school: 'media-mass', weight: 1 }],
    }
    const [line] = told(verdictSection(input({ chances }))).filter((l) =>
      l.includes('that the label claims too much'),
    )
    expect(line).toMatch(
      /page note: 25\s?% sure that the label claims too much \(normal stocking\), if media weight is right\./,
    )
    expect(told(verdictSection(input({ chances: { ...chances, tooHigh: null } }))).join()).not.toContain(
      'too high',
    )
  })
})

test('tanks: from what to what, with the rule that binds; any size where nothing is too strong; what was printed apart', () => {
  const range = {
    stockClass: 'normal',
    min: 0.02,
    max: 0.12,
    binding: 'media-mass',
    leading: 'media-mass',
    lowAboveTop: false,
  }
  const s = tanksSection(input({}, {
    claimedRange: { min: 0.06, max: 0.2 },
    ranges: [range, { ...range, stockClass: 'heavy', min: 0 }, { ...range, stockClass: 'light', lowAboveTop: true }],
  })) // prettier-ignore
  expect(told(s)).toEqual([
    'page: [claimed-min 0.06] [claimed-max 0.2]',
    'page head: Stocking | From | To | Limit',
    'page: Normal | [smallest-normal 0.02] | [largest-normal 0.12] | limit: media',
    expect.stringMatching(
      /page: Heavy \(large, messy, crowded\) \| any \| \[largest-heavy 0\.12\] \| limit: media/,
    ),
    expect.stringMatching(
      /page: Light, planted \| \[smallest-light [\d.,\s]+\] \| \[largest-light [\d.,\s]+\] \| current too strong for so small a tank; turn the outlet to the glass or use a spray bar/,
    ),
  ])
  const figures = s.blocks.flatMap((b) => (b.kind === 'numbers' ? b.figures : []))
  expect(figures.map((f) => f.provenance)).toEqual(['printed', 'printed'])
  expect(told(tanksSection(input()))).toEqual([])
})

describe('claims beside findings', () => {
  const rated = figure('rated', lph(700), { dimension: 'flow', provenance: 'printed' })
  const of = (more: object) => told(claimsSection(input(more)))
  test('only what was both printed and measured stands on the page; the rest says what is missing', () => {
    const candidate = canister('x', 1, { facts: { ...canister('x', 1).facts, printed: { ...canister('x', 1).facts.printed, ratedFlow: rated }, bare: figure('bare', lph(600), { dimension: 'flow' }) } }) // prettier-ignore
    const lines = of({ candidate, claims: [{ quantity: 'power', value: 12 }] })
    expect(lines[0]).toBe('page head:  | Label | Measured here')
    expect(lines[1]).toContain('Rated flow (empty, no hoses) | [rated')
    expect(lines.filter((l) => l.startsWith('page'))).toHaveLength(4)
    // Its watts and its flow were measured here, its noise was not on the label, its head is neither.
    expect(lines.find((l) => l.includes('Power'))).toMatch(/^page: Power \| .* \| \[power 15\]$/)
    expect(lines.find((l) => l.includes('Sound level'))).toMatch(
      /^whole: Sound level \| not on the label \| \[noise 35\]$/,
    )
    expect(lines.find((l) => l.includes('Maximum head'))).toBe(
      'whole: Maximum head | not on the label | not measured',
    )
  })
  test('a flow that was computed is no finding; what contradicts itself is a caution', () => {
    const shipped = {
      ...offered(1, 400),
      flow: figure('flow', lph(400), { provenance: 'computed', dimension: 'flow' }),
    }
    const lines = of({ candidate: canister('x', 1, { shipped }) })
    expect(lines.find((l) => l.includes('Installed flow'))).toBe(
      'whole: Installed flow | not on the label | not measured',
    )
    const assessment = { ...input().assessment, disagreements: [['Two trials differ.']] }
    expect(of({ assessment })).toContain('whole caution: Two trials differ.')
  })
})

test('flow: with what it was measured under, each way to it, and what other trials found but for power and noise', () => {
  const at = (id: string) => figure(id, lph(500), { dimension: 'flow' })
  const finding = (kind: string) => ({
    trial: { kind },
    figures: [figure(kind, 1)],
    sentences: [],
    problem: null,
  })
  const assessment = {
    ...input({}, { flow: { ...at('flow'), conditions: ['fresh water', 'a lift of 1 m'] } }).assessment,
    answers: { thumb: at('thumb'), computed: null, measured: at('measured') },
    findings: ['power', 'noise', 'dye'].map(finding),
  }
  expect(told(flowSection(input({ assessment })))).toEqual([
    expect.stringMatching(/^page note: 500.L\/h: fresh water; a lift of 1 m\.$/),
    'whole head: By | Flow',
    `whole: the rule of thumb | [thumb ${lph(500)}]`,
    `whole: measurement | [measured ${lph(500)}]`,
    'whole: [dye 1]',
  ])
  expect(told(flowSection(input({}, { flow: at('flow') })))[0]).toMatch(/^page note: 500.L\/h\.$/)
  expect(told(flowSection(input()))).toEqual([])
})

test('inside: a drawing, each litre that there is by its name, and all of them', () => {
  const box = (use: Chamber['use'], height: number): Chamber => ({ id: use, name: use, role: 'tray', solid: { shape: 'box', width: 0.1, depth: 0.1, height }, x: 0, y: 0, usableHeight: null, use, measured: true }) // prettier-ignore
  const body = {
    outerWidth: 0.2,
    outerDepth: 0.2,
    outerHeight: 0.4,
    waterFill: null,
    emptyMass: null,
    fullMass: null,
  }
  const audit = volumeAudit([box('biological', 0.2), box('machinery', 0.1)], body)
  const lines = told(insideSection(input({ audit })))
  expect(lines.slice(0, 2)).toEqual(['page drawing', 'whole head: Volume by use | Litres'])
  expect(lines.slice(2).map((l) => l.replace(/ 0\.\d+\]/, ']'))).toEqual(['whole: Bio media | [litres-biological]', 'whole: Pump and motor | [litres-machinery]', 'whole: Total | [gross]']) // prettier-ignore
  expect(told(insideSection(input()))).toEqual(['whole note: The inside was not measured.'])
})

test('fills: as shipped alone, or beside what is proposed; media in the order of the water', () => {
  const uses = [use({ name: 'Coarse foam' }), use({ name: 'Sintered glass' })]
  const shipped = offered(1, 400, uses)
  const alone = fillsSection(input({ candidate: canister('x', 1, { shipped }) }))
  expect(alone.title).toBe('Supplied')
  expect(told(alone)[0]).toBe('page head:  | Supplied')
  expect(told(alone).at(-1)).toBe('whole note: Supplied, in flow order: coarse foam, sintered glass.')
  const candidate = canister('x', 1, { shipped, proposed: offered(2, 380, [use({ name: 'Fine pad' })]) })
  const judged = (mass: number) => ({ ...FILL, mass: figure('mass', mass, { dimension: 'mass' }) })
  const verdict = { shipped: judged(1), proposed: { fill: judged(2), supported: figure('supported', 0.2) } }
  const both = fillsSection(input({ candidate }, verdict))
  expect(both.title).toBe('Supplied and recommended media')
  expect(told(both)[0]).toBe('page head:  | Supplied | Recommended')
  expect(told(both).at(-1)).toBe('whole note: Recommended: fine pad.')
  const litres = (l: string | undefined) => [...(l ?? '').matchAll(/ ([\d.]+)\]/g)].map((m) => Number(m[1]))
  const [one = 0, two = 0] = litres(told(both).find((l) => l.includes('Supports (normal')))
  // By media mass: litres as the mass; of a heavy stock half as many as of a normal one (50 and 100 L a kilogram).
  expect(two / one).toBeCloseTo(2, 6)
  expect((litres(told(both).find((l) => l.includes('Supports (heavy')))[0] ?? 0) / one).toBeCloseTo(0.5, 6)
})

describe('taken apart', () => {
  test('what is wrong with its parts, what the box omits; nothing wrong is said for it, not taken apart is a note', () => {
    const of = (more: object) => told(stripSection(input({ candidate: canister('x', 1, more) })))
    expect(of({ build: { parts: 9, faults: ['latch: whitened'] } })[0]).toBe(
      'page caution: Found on its 9 parts: latch: whitened.',
    )
    expect(of({})[0]).toBe('page for: Nothing wrong with its 10 parts.')
    expect(of({ build: null })[0]).toBe('whole note: No teardown yet.')
    const facts = { ...canister('x', 1).facts, omits: ['a sponge', 'taps'] }
    expect(of({ facts })).toContain('page against: Missing from the box: a sponge, taps.')
    expect(of({ facts: { ...facts, omits: [] } }).join()).not.toContain('omits')
  })
  test('photos stand at full length, and only where there are some', () => {
    expect(told(stripSection(input({ photos: [{ id: 'p', caption: '' }] })))).toContain('whole photos')
    expect(told(stripSection(input())).join()).not.toContain('photos')
  })
})

test('path: the first three faults on the page, the rest at length; nothing wrong is said for it; unknown is nothing', () => {
  expect(told(pathSection(input()))).toEqual([])
  const outcome = outcomeOf(caseWith([layer('a', 'low', medium('Coarse foam'), 40), layer('b', 'high', medium('Fine pad'), 10)]), NORMAL, true) // prettier-ignore
  const finding = (id: string, severity: string) => ({ sentence: [id], rule: { severity } })
  const say = (findings: object[]) => told(pathSection(input({ path: { outcome, findings } })))
  const lines = say(['a', 'b', 'c', 'd'].map((id, i) => finding(id, i === 1 ? 'warning' : 'fault')))
  expect(lines.slice(0, 4)).toEqual([
    'page against: a',
    'page caution: b',
    'page against: c',
    'whole against: d',
  ])
  expect(lines.some((l) => l.includes('Nothing is wrong'))).toBe(false)
  const none = say([])
  expect(none[0]).toBe('page for: No problems in the layer order.')
  expect(none[1]).toMatch(/^page: \[/)
  // A row for each layer, in the order of the water, with what goes round it, its head and its seconds.
  const rows = none.filter((l) => /Coarse foam|Fine pad/.test(l))
  expect(rows.map((l) => l.split(' | ').length)).toEqual([4, 4])
  expect(rows.map((l) => /foam/.test(l))).toEqual([true, false])
})

test('everyday use: noise, watts and minutes, those that are known', () => {
  const of = (more: object) => told(livingSection(input({ candidate: canister('x', 1, more) })))
  expect(of({})[0]).toMatch(/^page: \[noise 35\] \[power 15\] \[/)
  expect(of({ noise: null, watts: null, service: null })).toEqual([])
})

test('costs: prices with their days, years in words, what it adds up and what is not in it', () => {
  const of = (more: object, years = 5) => {
    const base = input({ candidate: canister('x', 1, more) })
    return told(costSection({ ...base, house: { ...base.house, advice: { ...base.house.advice, years } } } as ReviewInput)) // prettier-ignore
  }
  const lines = of({ price: { ...EUR(12900), on: '2026-09-01' } })
  expect(lines.find((l) => l.startsWith('page: List price'))).toContain('129.00 EUR')
  expect(lines.some((l) => l.startsWith('page: Owning it for 5 years'))).toBe(true)
  expect(of({}, 1).some((l) => l.startsWith('page: Owning it for a year'))).toBe(true)
  expect(lines.some((l) => l.startsWith('whole: ') && l.includes('129.00 EUR, as of 2026-09-01'))).toBe(true)
  expect(of({}).some((l) => l.startsWith('whole: ') && l.includes('100.00 EUR, undated'))).toBe(true)
})

test('upkeep: how often in words, and whose interval that is; nothing where nothing is asked for', () => {
  const chore = (label: string, every: object) => ({ label, every, how: 'Slowly.' })
  const chores = [chore('Wipe', { days: 1 }), chore('Rinse', { days: 30 }), chore('Lamp', { months: 1 }), chore('Rings', { months: 24 })] // prettier-ignore
  expect(told(upkeepSection(input({ chores })))).toEqual([
    'page note: Wipe: each day; Rinse: every 30 days; Lamp: each month; Rings: every 24 months.',
    'whole head: What | How often | How',
    'whole: Wipe | each day | Slowly.',
    'whole: Rinse | every 30 days | Slowly.',
    'whole: Lamp | each month | Slowly.',
    'whole: Rings | every 24 months | Slowly.',
    'whole note: As “Strain first” has it; intervals are common practice, no source.',
  ])
  expect(told(upkeepSection(input()))).toEqual([])
})

test('cautions: each, and the one that always stands', () => {
  expect(told(cautionsSection(input({ cautions: [{ id: 'c', text: 'Unplug it.' }] })))).toEqual([
    'page caution: Unplug it.',
    'page note: Follow local electrical codes. Fixed wiring is for a licensed electrician.',
  ])
})

test('coming back: how often, the last flow left, what was done and what failed, and when next', () => {
  const runs = (...seconds: number[]) => seconds.map((s) => ({ volume: 0.005, seconds: s }))
  const visit = (on: string, more: object = {}) => ({ id: on, on, stage: 'visit', runsBefore: [], runsAfter: [], cleaned: [], failed: [], ...more }) // prettier-ignore
  const first = { on: '2026-01-01', flow: { mean: 0.00025, n: 3 } }
  const all = [
    visit('2026-02-01', { runsBefore: runs(25), cleaned: [{ what: 'everything', how: 'tap' }] }),
    visit('2026-03-01', {
      failed: [
        { part: 'Impeller', how: '' },
        { part: 'Latch', how: 'split' },
      ],
    }),
  ]
  const lines = told(visitsSection(input({ history: { visits: all, first, all }, next: '2026-04-01' })))
  expect(lines[0]).toBe('page note: Visited 2 times, last on 2026-03-01.')
  expect(lines[1]).toMatch(/^page: \[flow-left-2026-02-01 0\.8/)
  expect(lines[3]).toMatch(/^whole: 2026-02-01 \| \[flow-left-2026-02-01 0\.8.*\] \| cleaned \| $/)
  expect(lines[4]).toBe('whole: 2026-03-01 | – | left as it was | Impeller: failed; Latch: split')
  expect(lines[5]).toBe('page note: The next check-up is due on 1 Apr 2026.')
  const one = { visits: all.slice(0, 1), first, all: all.slice(0, 1) }
  expect(told(visitsSection(input({ history: one })))[0]).toBe(
    'page note: Visited 1 time, last on 2026-02-01.',
  )
  expect(told(visitsSection(input()))).toEqual(['page note: No check-up yet.'])
})

test('a sheet has its sections in the reader’s order, without those that say nothing, shorter by the length', () => {
  const sheet = sheetOf(input({ disclosure: { paid: null, signed: null, affiliate: null, free: null, representative: null, previewed: null } })) // prettier-ignore
  expect(sheet.sections.map((s) => s.id)).toEqual(['verdict', 'claims', 'inside', 'fills', 'strip', 'living', 'cost', 'cautions', 'visits']) // prettier-ignore
  expect([sheet.maker, sheet.name, sheet.kind, sheet.on, sheet.house, sheet.beholden]).toEqual(['Quillon', 'Ledger', 'canister', '2026-11-26', 'Strain first', false]) // prettier-ignore
  const card = shortened(sheet, 'card').sections
  expect(card.map((s) => s.id)).toEqual(['verdict'])
  expect(card.every((s) => s.blocks.every((b) => b.from === 'card'))).toBe(true)
})

describe('what a page may not lose', () => {
  test('parts that go in wrong, unmarked ones as a caution, and those that only fit one way', () => {
    const part = (name: string, more: object) => ({ id: name, name, checklist: 'general', goesIn: '', mark: '', canGoWrong: null, follows: '', ...more }) // prettier-ignore
    const parts = [
      part('Head', { canGoWrong: true, mark: 'two dots', goesIn: 'taps over the notch', follows: 'the latch closes on one side' }), // prettier-ignore
      part('Ring', { canGoWrong: true, goesIn: 'lip up' }),
      part('Tray', { canGoWrong: false, goesIn: 'tube through its ring' }),
    ]
    const lines = told(stripSection(input({ parts })))
    expect(lines).toContain(
      'whole caution: Ring: lip up. Not marked. What happens if it is fitted wrong was not noted.',
    )
    expect(lines).toContain(
      'whole note: Head: taps over the notch (two dots). If wrong: the latch closes on one side.',
    )
    expect(lines).toContain('whole note: Only fit one way: Tray: tube through its ring.')
    expect(told(stripSection(input())).join()).not.toContain('Only fit')
  })
  test('seconds to reach what is cleaned, by their own names', () => {
    const reached = (id: string, s: number) => ({
      seconds: figure(id, s, { dimension: 'time' }),
      moves: null,
    })
    const facts = {
      ...canister('x', 1).facts,
      preFilter: reached('pre', 30),
      toMedia: reached('media', 90),
    } as never
    const blocks = stripSection(input({ candidate: canister('x', 1, { facts }) })).blocks
    const labels = blocks.flatMap((b) =>
      b.kind === 'numbers' ? b.figures.map((f) => [f.label, f.value]) : [],
    )
    expect(labels.slice(0, 2)).toEqual([['Access to the pre-filter', 30], ['Access to the media', 90]]) // prettier-ignore
  })
  test('what it is to be had for besides its list price, and its guarantee', () => {
    const offers = [{ kind: 'sale', price: { ...EUR(9900), on: '2026-10-01' } }, { kind: 'second-hand', price: EUR(4000) }] // prettier-ignore
    const facts = { ...canister('x', 1).facts, guarantee: 'two years' }
    const lines = told(
      costSection(input({ candidate: canister('x', 1, { offers: offers as never, facts }) })),
    )
    expect(lines.find((l) => l.startsWith('page: On sale'))).toContain('99.00 EUR')
    expect(lines.find((l) => l.startsWith('page: Second-hand'))).toContain('40.00 EUR')
    expect(lines).toContain('page: Warranty | two years')
    expect(lines).toContain('whole head: Cost breakdown | Year | Money')
  })
  test('what a sum leaves out is named', () => {
    const shipped = offered(1, 400, [use({ price: null, lifeDays: 30, name: 'Floss' })])
    const lines = told(costSection(input({ candidate: canister('x', 1, { shipped, watts: null }) })))
    expect(lines.find((l) => l.startsWith('whole caution: Not in it: '))).toMatch(/: .+\.$/)
  })
  test('rows of a fill: flow, media, what they are worth, what they carry, the price', () => {
    const candidate = canister('x', 1, {
      shipped: offered(1, 400, [use({ name: 'Sintered glass', counts: true })]),
    })
    const rows = told(fillsSection(input({ candidate }))).filter((l) => l.startsWith('page: '))
    expect(rows.map((r) => r.split(' | ')[0])).toEqual(expect.arrayContaining(['page: Flow', 'page: Equal to good sintered media', 'page: Price with media'])) // prettier-ignore
    expect(rows.every((r) => r.split(' | ').length === 2)).toBe(true)
  })
})

test('every figure of a sheet once, from sentences, numbers and tables; the first that has an id keeps it', () => {
  const [a, b, c] = ['a', 'b', 'c'].map((id, i) => figure(id, i)) as [Figure, Figure, Figure]
  const one: Section = {
    id: 'x',
    title: 'X',
    blocks: [
      { from: 'page', kind: 'drawing' },
      { from: 'page', kind: 'text', tone: 'note', sentence: ['of ', { ...inline(a) }, '.'] },
      { from: 'page', kind: 'table', head: ['', ''], rows: [['row', b, null]] },
    ],
  }
  const two: Section = { id: 'y', title: 'Y', blocks: [{ from: 'page', kind: 'numbers', figures: [{ ...a, value: 9 }, c] }] } // prettier-ignore
  const all = figuresOf([one, two])
  expect([...all].map(([id, f]) => [id, f.section, f.figure.value])).toEqual([['a', 'X', 0], ['b', 'X', 1], ['c', 'Y', 2]]) // prettier-ignore
})

test('a unit that was given is beholden as one on loan is', () => {
  const none = {
    paid: false,
    signed: false,
    affiliate: false,
    free: false,
    representative: false,
    previewed: false,
  }
  expect((['given', 'loaned', 'bought', 'second-hand'] as const).map((obtained) => isBeholden({ obtained, disclosure: none }))).toEqual([true, true, false, false]) // prettier-ignore
})
