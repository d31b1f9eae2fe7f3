import '../../../tests/setup'
import type { Trial } from '@ypsometer/contract'
import { TRIAL_KINDS, readingProblem, type TrialKind } from '@ypsometer/core/trials/readings'
import type { BenchReading } from '@ypsometer/core/bench/shape'
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react'
import { demoDossier, showStation } from '../../../tests/dossier'
import { units } from '../../settings/settings'

import { emptyOutbox, noServer, written } from '../../../tests/backend'
import { AddReading } from './AddReading'
import { AirLine } from '../../trials/air/AirLine'
import { CurvePoints } from './CurvePoints'
import { ProposedSet } from './ProposedSet'

const some = demoDossier('Bellows S2').trials[0] as Trial
const trial = (kind: TrialKind, more: Partial<Trial> = {}): Trial => ({
  ...some,
  id: kind,
  kind,
  setup: {},
  ...more,
})
const kept = (): Record<string, unknown>[] => written('create')
const changed = (): Record<string, unknown>[] => written('change')
beforeEach(() => {
  noServer()
  emptyOutbox()
  units.set('metric')
})
afterEach(cleanup)

const TYPED: Readonly<Record<string, string>> = { Reading: '0.25', Clarity: '4', Volume: '5', Seconds: '45,2', Strength: '3', 'Scale gained': '4.98', 'Pulses counted': '22500', Flow: '500', 'Height above the water': '1,4', Watts: '14', Level: '38', 'Air flow': '1.5', 'Water caught': '12' } // prettier-ignore

test.each(TRIAL_KINDS)('%s: a reading from a notebook is typed at the desk, and is whole', (kind) => {
  render(<AddReading trial={trial(kind)} />)
  const form = screen.getByRole('form', { name: 'Add a reading' })
  for (const box of within(form).getAllByRole('textbox')) {
    const label = (box.closest('label')?.textContent ?? '').split(',')[0] ?? ''
    if (TYPED[label]) fireEvent.change(box, { target: { value: TYPED[label] } })
  }
  fireEvent.submit(form)
  expect(kept()).toHaveLength(1)
  expect(readingProblem(kind, kept()[0] as BenchReading)).toBeNull()
})

test('what is missing or unreadable is said by name, and nothing typed is lost', () => {
  render(<AddReading trial={trial('vessel')} />)
  const form = screen.getByRole('form')
  const [volume, seconds] = within(form).getAllByRole<HTMLInputElement>('textbox')
  if (!volume || !seconds) throw new Error('no fields')
  fireEvent.change(volume, { target: { value: 'a bucket' } })
  fireEvent.submit(form)
  expect(screen.getByRole('alert').textContent).toContain('“a bucket” is not a number')
  fireEvent.change(volume, { target: { value: '5' } })
  fireEvent.submit(form)
  expect(screen.getByRole('alert').textContent).toContain('Seconds: at least 0.5 s is needed')
  expect(volume.value).toBe('5')
  expect(kept()).toEqual([])
})

test('one pump over two outlets and a leak: each share answers for itself, and the leak robs the others', () => {
  const line = {
    shutOffHead: 1.6,
    maxFlow: 5e-5,
    outlets: [
      { label: 'Near', depth: 0.2, stoneHead: 0.05, open: 1 },
      { label: 'Deep', depth: 0.5, stoneHead: 0.05, open: 1 },
    ],
  }
  const shares = (): number[] =>
    screen.getAllByTitle(/show the working/).map((b) => Number(/[\d.]+/.exec(b.textContent)?.[0]))
  const { rerender } = render(<AirLine trial={trial('air', { setup: { airLine: line } })} />)
  const [near = 0, deep = 0] = shares()
  expect(near).toBeGreaterThan(deep)
  fireEvent.click(screen.getByRole('button', { name: 'Leak' }))
  const next = (changed()[0] as { setup: { airLine: typeof line } }).setup.airLine
  expect(next.outlets).toHaveLength(3)
  rerender(<AirLine trial={trial('air', { setup: { airLine: next } })} />)
  expect(shares()[0]).toBeLessThan(near)
})

test('the usual set ticks what is done and leads to the next; points of the curve are listed with why one is out', () => {
  const dossier = demoDossier('Torrent 1400')
  const out = {
    ...dossier,
    trials: dossier.trials.map((t, i) => (i === 1 ? { ...t, outReason: 'hose kinked' } : t)),
  }
  const asked: (string | null)[] = []
  showStation(
    <>
      <ProposedSet />
      <CurvePoints asked={null} onAsk={(id) => asked.push(id)} />
    </>,
    out,
  )
  expect(screen.getByRole('button', { name: 'Next: flow at 1.6 m outlet height (empty)' })).toBeTruthy()
  expect(screen.getAllByText('done', { selector: '.sr-only' }).length).toBeGreaterThan(8)
  expect(screen.getByText(/out: hose kinked/)).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Include again' }))
  expect(changed()[0]).toEqual({ outReason: null })
  fireEvent.click(screen.getAllByRole('button', { name: 'Exclude …' })[0] as HTMLElement)
  expect(asked).toHaveLength(1)
})
