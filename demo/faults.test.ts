import { nothingKnown } from '@ypsometer/core/hands/evidence'
import { search } from '@ypsometer/core/hands/faults'
import { setUpSteps } from '@ypsometer/core/hands/setUp'
import { GENERIC_MEDIA } from '@ypsometer/core/media/library'
import { STOCK_CLASSES } from '@ypsometer/core/tanks/stock'
import { faultEvidence, faultRecord, setUpSubject, type FaultQuestion } from '@ypsometer/contract/faults'
import { demoBundle } from '.'

const row = { version: 1, createdAt: '2026-09-01T00:00:00.000Z', updatedAt: '', deletedAt: null }
const rows = (list: readonly object[]): object[] => list.map((r) => ({ ...row, ...r }))

/** What is asked of a demo model at a demo tank on a day. */
function question(name: string, tankName: string | null, today: string): FaultQuestion {
  const m = demoBundle.models.find((x) => x.model.name === name)
  if (!m) throw new Error(`no demo model ${name}`)
  const tank = demoBundle.tanks.find((t) => t.name === tankName)
  const { model, ...collections } = m
  const lists = Object.fromEntries(Object.entries(collections).map(([k, list]) => [k, rows(list)]))
  return {
    dossier: { model: { ...row, ...model }, logs: [], photos: [], ...lists },
    media: rows([...GENERIC_MEDIA, ...demoBundle.media]),
    house: null,
    stock: STOCK_CLASSES,
    bias: null,
    tank: tank ? { ...row, ...tank } : null,
    setUps: rows(demoBundle.setUps),
    today,
  } as unknown as FaultQuestion
}

test('a canister left as it was found, weak: the record alone says clogged, by its visits', () => {
  const q = question('Plainbody 1000', 'Ferry café, counter', '2026-11-26')
  const r = faultRecord(q)
  // Found on 10 November, 35 days after it was opened on 6 October, and left as it was.
  expect(r.left?.on).toBe('2026-11-10')
  expect(r.left?.figure.value).toBeLessThan(0.7)
  expect(r.opened).toEqual({ on: '2026-10-06', every: 32 })
  expect(r.blind).not.toEqual([])
  expect(r.last?.seeping).toEqual(['head'])
  expect(r.parts.find((p) => p.name === 'Main O-ring')).toMatchObject({
    findings: ['flat'],
    on: '2026-11-10',
  })
  const weak = search('weak-flow', 'canister', faultEvidence(q), {})
  expect(weak.recordAlone?.check.id).toBe('clogged')
  // The same record knows of a leak too.
  expect(search('leak', 'canister', faultEvidence(q), {}).recordAlone?.check.id).toBe('head-seal')
})

test('a day knows nothing of what was seen later; a visit that was cleaned tells nothing of today', () => {
  const before = faultRecord(question('Plainbody 1000', 'Ferry café, counter', '2026-10-20'))
  expect(before.last?.on).toBe('2026-10-06')
  expect(before.left).toBeNull()
  expect(before.blind).toEqual([])
  expect(faultRecord(question('Torrent 1400', null, '2026-08-02')).refused).toBeNull()
  const none = faultRecord(question('Plainbody 1000', 'Ferry café, counter', '2025-01-01'))
  expect(none).toMatchObject({ last: null, opened: { on: '2025-12-05' }, noise: null })
})

test('what was refused at the set-up of this filter at this tank points to a rattle', () => {
  const q = question('Torrent 1400', 'Museum lobby, column', '2026-11-26')
  expect(faultRecord(q).refused).toEqual({ on: '2026-08-03', steps: ['trays-level'] })
  const rattle = search('rattle', 'canister', faultEvidence(q), {})
  expect(rattle.next).toMatchObject({ what: 'check', suspect: { check: { id: 'tray-askew' } } })
  expect(faultRecord(question('Torrent 1400', 'Vet, quarantine', '2026-11-26')).refused).toBeNull()
})

test('an order that clogs is said of the fill on record; a dossier with nothing in it is no error', () => {
  const wrong = faultEvidence(question('Torrent 1400', null, '2026-11-26')).filter((e) => e.check === 'order')
  expect(wrong.map((e) => e.from)).toEqual(['media setup'])
  const q = question('Bellows S2', null, '2026-11-26')
  const bare = { ...q.dossier, visits: [], fills: [], trials: [], claims: [], parts: [], bodies: [], chambers: [], hookups: [] } // prettier-ignore
  expect(faultRecord({ ...q, dossier: bare, setUps: [] })).toEqual({
    ...nothingKnown('air-sponge', '2026-11-26'),
  })
})

test('a checklist is made from the dossier: its trays, its way of priming, its own seals and one-way parts', () => {
  const { dossier } = question('Torrent 1400', null, '2026-11-26')
  const steps = setUpSteps(setUpSubject(dossier))
  expect(setUpSubject(dossier).trays).toBe(3)
  expect(steps.find((s) => s.id === 'prime')?.says).toMatch(/button/)
  expect(steps.filter((s) => s.id.startsWith('seal:')).map((s) => s.says)).toEqual([expect.stringMatching(/^Main O-ring/)]) // prettier-ignore
  expect(steps.filter((s) => s.id.startsWith('part:')).length).toBe(6)
})
