import type { Block } from './blocks'
import { NOT_RECORDED, undisclosed } from './disclosure'
import { readiness } from './ready'
import type { Sheet } from './sheet'

const figure = (provenance: 'measured' | 'printed') => ({ id: provenance, label: 'x', value: 1, dimension: 'flow', provenance }) as const // prettier-ignore
const sheet = (open: Sheet['open'], ...blocks: Block[]): Sheet => ({ open, sections: [{ id: 'a', title: 'A', blocks }] }) as unknown as Sheet // prettier-ignore
const answered = Object.fromEntries(
  Object.keys(NOT_RECORDED).map((k) => [k, false]),
) as unknown as typeof NOT_RECORDED
const lacking = (title: string, s: Sheet): string[] =>
  readiness(title, s)
    .filter((r) => !r.met)
    .map((r) => r.id)

test('a draft lacks what it has not: title, disclosure, something measured, a photo', () => {
  const open = undisclosed({ obtained: null, disclosure: NOT_RECORDED })
  expect(open).toEqual(['obtained', 'paid', 'signed', 'affiliate', 'free', 'representative', 'previewed'])
  expect(lacking(' ', sheet(open))).toEqual(['title', 'disclosure', 'measured', 'pictures'])
  const printed: Block = { from: 'page', kind: 'numbers', figures: [figure('printed')] }
  expect(lacking('T', sheet(open, printed))).toEqual(['disclosure', 'measured', 'pictures'])
  expect(lacking('T', sheet(open, { from: 'page', kind: 'photos', photos: [] }))).toContain('pictures')
  // Made before the disclosure was asked: unknown is never a pass.
  expect(lacking('T', sheet(undefined))).toContain('disclosure')
})

test('with all of it nothing is lacking; one open question of the disclosure is enough to lack it', () => {
  const measured: Block = { from: 'whole', kind: 'table', head: [], rows: [['x', figure('measured')]] }
  const photo: Block = {
    from: 'whole',
    kind: 'photos',
    photos: [{ id: 'p', caption: '', width: 1, height: 1 }],
  }
  const lackingWith = (given: Parameters<typeof undisclosed>[0]) =>
    lacking('T', sheet(undisclosed(given), measured, photo))
  // A no is an answer.
  expect(lackingWith({ obtained: 'bought', disclosure: answered })).toEqual([])
  expect(lackingWith({ obtained: 'bought', disclosure: { ...answered, paid: null } })).toEqual(['disclosure'])
  expect(lackingWith({ obtained: null, disclosure: answered })).toEqual(['disclosure'])
})
