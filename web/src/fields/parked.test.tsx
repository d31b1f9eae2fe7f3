import '../../tests/setup'
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react'
import type { Entry } from '../api/outboxPolicy'
import { outbox } from '../api/app'

/** Lays writes into the outbox of this page. */
const waits = (...mine: Entry[]): void => act(() => outbox.held.set({ ...outbox.held.get(), mine }))
const resolved: [string, string][] = []
jest.spyOn(outbox, 'resolve').mockImplementation((key, choice) => void resolved.push([key, choice]))

import { Parked } from './Parked'
import { complaint } from './useAutosaved'

const entry = (more: object): Entry =>
  ({
    key: 'k',
    order: 1,
    method: 'PATCH',
    collection: 'fills',
    rowId: 'f',
    body: { layers: [] },
    version: 1,
    base: {},
    state: 'conflict',
    tries: 1,
    ...more,
  }) as Entry
const show = () => render(<Parked row={{ id: 'f' }} field="layers" what="The layers of this setup" />)

beforeEach(() => {
  waits()
  resolved.length = 0
})
afterEach(cleanup)

test('nothing is said while all is well, or while a write only waits', () => {
  show()
  expect(screen.queryByRole('alert')).toBeNull()
  waits(entry({ state: 'waiting' }))
  show()
  expect(screen.queryByRole('alert')).toBeNull()
})

test('a change made elsewhere offers both ways out', () => {
  waits(entry({}))
  show()
  expect(screen.getByRole('alert').textContent).toContain(
    'The layers of this setup changed elsewhere meanwhile.',
  )
  fireEvent.click(screen.getByRole('button', { name: 'Keep my version' }))
  fireEvent.click(screen.getByRole('button', { name: 'Use their version' }))
  expect(resolved).toEqual([
    ['k', 'mine'],
    ['k', 'theirs'],
  ])
})

test('a refusal says why, and can be tried again or given up', () => {
  waits(
    entry({
      state: 'refused',
      problem: {
        type: '', title: 'Invalid', status: 400, errors: [{ field: 'layers.0.amount', message: 'at least 0' }],
      },
    }),
  ) // prettier-ignore
  show()
  expect(screen.getByRole('alert').textContent).toContain('cannot be kept so: at least 0')
  fireEvent.click(screen.getByRole('button', { name: 'Try again' }))
  fireEvent.click(screen.getByRole('button', { name: 'Discard my change' }))
  expect(resolved.map((r) => r[1])).toEqual(['mine', 'theirs'])
})

test('another row’s conflict, or another field’s, is not this one’s', () => {
  waits(entry({ rowId: 'g' }), entry({ body: { name: 'x' } }))
  show()
  expect(screen.queryByRole('alert')).toBeNull()
})

test('a refusal is said at the field it names, not at one that was sent along', () => {
  const refused = (problem: object): Entry =>
    entry({ state: 'refused', body: { litresPerKilogram: 40, minTurnover: 99, marks: {} }, problem })
  const one = refused({ title: 'no', status: 422, errors: [{ field: 'minTurnover', message: 'too much' }] })
  expect(complaint(one, 'minTurnover')).toBe('too much')
  expect(complaint(one, 'litresPerKilogram')).toBeNull()
  const nested = refused({
    title: 'no',
    status: 422,
    errors: [{ field: 'marks.feed.band', message: 'at most 2' }],
  })
  expect(complaint(nested, 'marks')).toBe('at most 2')
  // What names none of them is said at each.
  expect(complaint(refused({ title: 'no room', status: 507 }), 'minTurnover')).toBe('no room')
  expect(complaint(undefined, 'minTurnover')).toBeNull()
})
