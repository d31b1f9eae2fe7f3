import '../../tests/setup'
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react'
import type { Entry } from '../api/outboxPolicy'
import { outbox } from '../api/app'
import { SetAside } from './SetAside'

/** Lays writes into the outbox of this page. */
const waits = (...mine: Entry[]): void => act(() => outbox.held.set({ ...outbox.held.get(), mine }))
const resolved: [string, string][] = []
jest.spyOn(outbox, 'resolve').mockImplementation((key, choice) => void resolved.push([key, choice]))
const entry = (more: object): Entry =>
  ({ order: 1, rowId: 'f', version: 1, base: {}, body: {}, tries: 3, ...more }) as Entry
afterEach(cleanup)

test('nothing is said while writes only wait', () => {
  waits(entry({ key: 'w', method: 'PATCH', collection: 'models', state: 'waiting' }))
  const { container } = render(<SetAside />)
  expect(container.textContent).toBe('')
})

test('each write set aside is named, with its reason and both ways out', () => {
  waits(
    entry({
      key: 'a', method: 'POST', collection: 'readings', state: 'refused', body: { id: 'x', trialId: 't', kind: 'bucket', volume: 0.01, seconds: 61.2, typed: { volume: '10 L' } },
      problem: { type: '', status: 500, title: 'Something failed on our side' },
    }),
    entry({
      key: 'b', method: 'PATCH', collection: 'models', state: 'refused', body: { name: '', typed: {} },
      problem: { type: '', status: 400, title: 'no', errors: [{ field: 'name', message: 'at least one character' }] },
    }),
    entry({ key: 'c', method: 'DELETE', collection: 'claims', state: 'conflict' }),
  ) // prettier-ignore
  render(<SetAside />)
  expect(screen.getByText('3 entries are kept on this device and need your decision')).toBeTruthy()
  const rows = screen.getAllByRole('listitem', { hidden: true })
  expect(rows.map((r) => r.textContent)).toEqual([
    'New run (kind “bucket”, volume “10 L”): Something failed on our sideTry againDiscard my change',
    'Change to a model: name: at least one characterTry againDiscard my change',
    'Removal of a claim: changed elsewhere meanwhileKeep my versionUse their version',
  ])
  fireEvent.click(screen.getAllByText('Try again')[0] as HTMLElement)
  fireEvent.click(screen.getByText('Use their version'))
  expect(resolved).toEqual([
    ['a', 'mine'],
    ['c', 'theirs'],
  ])
})
