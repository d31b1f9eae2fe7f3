import '../../tests/setup'
import type { InstrumentFrame, SensorReading } from '@ypsometer/contract'
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react'
import { units } from '../settings/settings'

import { emptyOutbox, noServer, rowsMade, written } from '../../tests/backend'
import { LiveStrip } from './LiveStrip'
import { useLogger } from './useLogger'
import { rateOf } from './useInstruments'

/** A stand-in for the browser's event stream, fed by the test. */
class Source {
  static last: Source | null = null
  onmessage: ((e: { data: string }) => void) | null = null
  onerror: (() => void) | null = null
  closed = false
  constructor() {
    Source.last = this
  }
  close(): void {
    this.closed = true
  }
}
Object.assign(globalThis, { EventSource: Source })

const START = Date.UTC(2026, 10, 25, 10)
const live = (value: number): SensorReading => ({ state: 'live', value })
const frame = (
  at: number,
  sensors: Partial<InstrumentFrame['sensors']>,
  more: Partial<InstrumentFrame> = {},
): InstrumentFrame => ({
  at: new Date(START + at * 1000).toISOString(),
  link: 'up',
  identity: 'Somebody,Meter,1,1',
  trouble: '',
  sensors: sensors as InstrumentFrame['sensors'],
  ...more,
})
const send = (f: InstrumentFrame): void => act(() => Source.last?.onmessage?.({ data: JSON.stringify(f) }))

const made = (): Record<string, unknown>[] => rowsMade.map((row, i) => ({ ...row, ...written('create')[i] }))
beforeEach(() => {
  noServer()
  emptyOutbox()
  localStorage.clear()
  units.set('metric')
  jest.useFakeTimers({ now: START })
})
afterEach(() => {
  cleanup()
  jest.useRealTimers()
})

test('a live value is a number with its unit; every fault is words and no number', () => {
  render(<LiveStrip show={['power', 'temperature', 'sound']} />)
  send(
    frame(0, {
      power: live(14.2),
      temperature: { state: 'missing', value: null },
      sound: { state: 'stuck', value: null },
    }),
  )
  const strip = screen.getByRole('region', { name: 'Instruments' })
  expect(strip.textContent).toMatch(/Power14\.2\sW/)
  expect(strip.textContent).toContain('Waternot connected')
  expect(strip.textContent).toContain('Sound levelstuck: shows the same again and again')
  send(frame(1, { power: { state: 'silent', value: null }, temperature: live(21.5), sound: live(38) }))
  expect(strip.textContent).toContain('Powerdoes not answer')
  expect(strip.textContent).not.toMatch(/Power0/)
})

test('a meter shows its flow once it has been watched for two seconds', () => {
  render(<LiveStrip show={['pulses']} kFactor={4.5e6} />)
  send(frame(0, { pulses: live(1000) }))
  expect(screen.getByRole('region').textContent).toContain('counting …')
  // 500 L/h are 625 pulses a second at 4500 a litre.
  send(frame(2, { pulses: live(1000 + 1250) }))
  expect(screen.getByRole('region').textContent).toMatch(/500\sL\/h/)
  expect(
    rateOf([frame(0, { pulses: live(5) }), frame(3, { pulses: { state: 'stuck', value: null } })], 'pulses'),
  ).toBeNull()
})

test('a dead bench and a server that is away are told apart; no bench shows nothing', () => {
  const { container } = render(<LiveStrip show={['power']} />)
  send(frame(0, {}, { link: 'off' }))
  expect(container.textContent).toBe('')
  send(frame(1, {}, { link: 'down', trouble: 'No instrument answers at 127.0.0.1:4690 (no connection).' }))
  expect(container.textContent).toContain('No instrument answers at 127.0.0.1:4690')
  act(() => Source.last?.onerror?.())
  expect(container.textContent).toContain(' No live values: the server does not answer.')
})

test('the stream is closed when nothing shows it any more', () => {
  const { unmount } = render(<LiveStrip show={['power']} />)
  const source = Source.last
  unmount()
  expect(source?.closed).toBe(true)
})

function Logger() {
  const log = useLogger('t1', 'power')
  return (
    <>
      <button type="button" onClick={() => log.start(3, 'with')}>
        start
      </button>
      <p>{log.left === null ? log.said || 'idle' : `left ${Math.ceil(log.left)}`}</p>
    </>
  )
}
const pass = (seconds: number): void => act(() => void jest.advanceTimersByTime(seconds * 1000))

test('a log keeps points at their own times, counts the looks without a value, and ends by itself', () => {
  render(<Logger />)
  send(frame(0, { power: live(10) }))
  fireEvent.click(screen.getByRole('button'))
  send(frame(0.5, { power: live(14) }))
  send(frame(1, { power: { state: 'missing', value: null } }))
  send(frame(1.5, { power: live(16) }))
  expect(localStorage.getItem('ypsometer.log.t1')).toContain('"values":[14,16]')
  pass(4)
  expect(made()).toHaveLength(1)
  expect(made()[0]).toMatchObject({
    trialId: 't1',
    series: 'with',
    times: [0.5, 1.5],
    values: [14, 16],
    n: 2,
    mean: 15,
    note: '1 looks without a value',
    source: 'Somebody,Meter,1,1',
  })
  expect(localStorage.getItem('ypsometer.log.t1')).toBeNull()
  expect(screen.getByText('2 points kept, 1 looks had no value.')).toBeTruthy()
})

test('a log cut off by a closed page is kept with what it had, and says so', () => {
  localStorage.setItem(
    'ypsometer.log.t1',
    JSON.stringify({
      trialId: 't1',
      series: '',
      startedAt: new Date(START).toISOString(),
      source: '',
      times: [0.5, 1],
      values: [14, 15],
      gaps: 0,
    }),
  )
  render(<Logger />)
  expect(made()[0]).toMatchObject({ note: 'cut off when the page closed', n: 2 })
  expect(screen.getByText(/A log was going when the page closed/)).toBeTruthy()
  cleanup()
  render(<Logger />)
  expect(made()).toHaveLength(1)
})

test('an instrument that gives nothing leaves no empty log', () => {
  render(<Logger />)
  fireEvent.click(screen.getByRole('button'))
  send(frame(0.5, { power: { state: 'silent', value: null } }))
  pass(4)
  expect(made()).toEqual([])
  expect(screen.getByText('Nothing was logged: the instrument gave no value.')).toBeTruthy()
})
