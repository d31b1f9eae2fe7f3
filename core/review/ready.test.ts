import type { Block } from './blocks'
import { disclosureWords, NOT_RECORDED } from './disclosure'
import { readiness } from './ready'
import type { Sheet } from './sheet'

const figure = (provenance: 'measured' | 'printed') => ({ id: provenance, label: 'x', value: 1, dimension: 'flow', provenance }) as const // prettier-ignore
const sheet = (disclosure: string, ...blocks: Block[]): Sheet => ({ disclosure, sections: [{ id: 'a', title: 'A', blocks }] }) as unknown as Sheet // prettier-ignore
const answered = Object.fromEntries(
  Object.keys(NOT_RECORDED).map((k) => [k, false]),
) as unknown as typeof NOT_RECORDED
const lacking = (title: string, s: Sheet): string[] =>
  readiness(title, s)
    .filter((r) => !r.met)
    .map((r) => r.id)

test('a draft lacks what it has not: title, disclosure, something measured, a photo', () => {
  const open = disclosureWords({ obtained: null, disclosure: NOT_RECORDED })
  expect(lacking(' ', sheet(open))).toEqual(['title', 'disclosure', 'measured', 'pictures'])
  const printed: Block = { from: 'page', kind: 'numbers', figures: [figure('printed')] }
  expect(lacking('T', sheet(open, printed))).toEqual(['disclosure', 'measured', 'pictures'])
  expect(lacking('T', sheet(open, { from: 'page', kind: 'photos', photos: [] }))).toContain('pictures')
})

test('with all of it nothing is lacking; one open question of the disclosure is enough to lack it', () => {
  const done = disclosureWords({ obtained: 'bought', disclosure: answered })
  const measured: Block = { from: 'whole', kind: 'table', head: [], rows: [['x', figure('measured')]] }
  const photo: Block = {
    from: 'whole',
    kind: 'photos',
    photos: [{ id: 'p', caption: '', width: 1, height: 1 }],
  }
  expect(lacking('T', sheet(done, measured, photo))).toEqual([])
  const one = disclosureWords({ obtained: 'bought', disclosure: { ...answered, paid: null } })
  expect(lacking('T', sheet(one, measured, photo))).toEqual(['disclosure'])
  expect(lacking('T', sheet(disclosureWords({ obtained: null, disclosure: answered }), measured, photo))).toEqual(['disclosure']) // prettier-ignore
})
