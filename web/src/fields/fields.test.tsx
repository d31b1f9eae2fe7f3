import '../../tests/setup'
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import type { RowOf } from '@ypsometer/contract'
import type { Sentence } from '@ypsometer/core/figures/figure'
import { emptyOutbox, noServer, written } from '../../tests/backend'
import { demoDossier } from '../../tests/dossier'
import { outbox } from '../api/app'
import { units } from '../settings/settings'
import { QuantityField, SelectField, TextField } from './fields'
import { QuantityInput } from './QuantityInput'

const dossier = demoDossier('Torrent 1400')
const trial = dossier.trials[0] as RowOf<'trials'>
const row = { ...trial, id: 'r1', version: 2, lift: 1.88, note: 'old', typed: { lift: '6 ft 2' } }
const model = { ...dossier.model, name: 'old' }
const changes = (): object[] => written('change')

const lift = (more: object = {}) => (
  <QuantityField collection="trials" row={row} field="lift" label="Lift" dimension="head" {...more} />
)
const input = (): HTMLInputElement => screen.getByLabelText('Lift')
const type = (text: string): void => void fireEvent.change(input(), { target: { value: text } })

beforeEach(() => {
  noServer()
  emptyOutbox()
  localStorage.clear()
  units.set('metric')
  jest.useFakeTimers()
})
afterEach(() => {
  cleanup()
  jest.useRealTimers()
})
const wait = (ms: number): void => act(() => void jest.advanceTimersByTime(ms))

describe('a field for a quantity', () => {
  test('shows the value in the chosen units and says how it was typed', () => {
    render(lift())
    expect(input().value).toBe('1.88 m')
    expect(screen.getByText('typed “6 ft 2”')).toBeTruthy()
    act(() => units.set('us'))
    // 1.88 m ÷ 0.3048 = 6.16798 ft
    expect(input().value).toBe('6.16798 ft')
  })

  test('writes SI and what was typed, once, after a pause', () => {
    render(lift())
    type('2')
    type('2.5 ft')
    expect(changes()).toEqual([])
    wait(700)
    expect(changes()).toEqual([{ lift: 2.5 * 0.3048, typed: { lift: '2.5 ft' } }])
    wait(2000)
    expect(changes()).toHaveLength(1)
  })

  test('writes at once on leaving or Enter', () => {
    render(lift())
    type('1 m')
    fireEvent.blur(input())
    expect(changes()).toEqual([{ lift: 1, typed: { lift: '1 m' } }])
  })

  test.each([
    ['high', '“high” is not a number'],
    ['-1', 'Minimum 0 m.'],
    ['25', 'Maximum 20 m.'],
    ['3 kg', '“kg” is not a unit of head'],
    ['', 'Enter a number, e.g. 1.8 m.'],
  ])('“%s” stays in the field with the reason and is not written', (text, reason) => {
    render(lift())
    type(text)
    wait(5000)
    fireEvent.blur(input())
    expect(changes()).toEqual([])
    expect(input().value).toBe(text)
    expect(input().getAttribute('aria-invalid')).toBe('true')
    expect(
      screen.getByText(new RegExp(reason.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/ /g, '\\s'))),
    ).toBeTruthy()
  })

  test('unreadable text survives a closed page as a draft; a readable one is written on the way out', () => {
    const first = render(lift())
    type('two or so')
    first.unmount()
    render(lift())
    expect(input().value).toBe('two or so')
    type('2')
    cleanup()
    expect(changes()).toEqual([{ lift: 2, typed: { lift: '2' } }])
    render(lift())
    expect(input().value).toBe('1.88 m')
  })

  test('an odd value is asked about; yes writes it, taking it back restores', () => {
    const doubt = (si: number): Sentence | null =>
      si > 10 ? ['Are you sure? ', { si, dimension: 'head' }] : null
    render(lift({ doubt }))
    type('12')
    wait(5000)
    expect(changes()).toEqual([])
    expect(screen.getByText(/Are you sure\? 12 m/)).toBeTruthy()
    fireEvent.click(screen.getByText('Undo'))
    expect(input().value).toBe('1.88 m')
    type('13')
    fireEvent.click(screen.getByText('Yes, keep it'))
    expect(changes()).toEqual([{ lift: 13, typed: { lift: '13' } }])
  })

  test('an optional field may be emptied, and a rule of its own can refuse', () => {
    render(
      <QuantityField
        collection="trials"
        row={{ ...row, daysInUse: 2 }}
        field="daysInUse"
        label="Lift"
        dimension="head"
        check={(v) => (v > 3 ? 'over the rim' : null)}
      />,
    )
    type('4')
    wait(1000)
    expect(screen.getByText('over the rim')).toBeTruthy()
    type('')
    wait(1000)
    expect(changes()).toEqual([{ daysInUse: null, typed: { daysInUse: '' } }])
  })

  /** The server answers the next write with a refusal. */
  const refuses = (status: number, problem: object): void => {
    globalThis.fetch = (async () => ({
      ok: false,
      status,
      statusText: '',
      json: async () => ({ type: '', title: 'no', status, ...problem }),
    })) as unknown as typeof fetch
  }
  const parked = async (text: string): Promise<void> => {
    jest.useRealTimers()
    render(lift())
    type(text)
    fireEvent.blur(input())
    await waitFor(() => expect(outbox.held.get().state).toBe('needs-you'))
  }

  test('a conflict shows both values and offers both ways out', async () => {
    refuses(409, { code: 'stale', current: { ...row, version: 9, lift: 2 } })
    await parked('1 m')
    expect(screen.getByText('Changed elsewhere to', { exact: false }).textContent).toMatch(
      /to 2 m; you typed 1 m/,
    )
    fireEvent.click(screen.getByText('Use their version'))
    expect(outbox.held.get().mine).toEqual([])
  })

  test('the server’s refusal is shown at the field it names', async () => {
    refuses(422, { errors: [{ field: 'lift', message: 'the trial is over' }] })
    await parked('1 m')
    expect(screen.getByText('the trial is over')).toBeTruthy()
  })
})

describe('words and choices', () => {
  test('a required name cannot be emptied; the old one stays', () => {
    render(<TextField collection="models" row={model} field="name" label="Note" />)
    const field = screen.getByLabelText<HTMLInputElement>('Note')
    fireEvent.change(field, { target: { value: ' ' } })
    fireEvent.blur(field)
    expect(screen.getByText('Note cannot be empty. Until then “old” stays.')).toBeTruthy()
    fireEvent.change(field, { target: { value: 'x'.repeat(81) } })
    fireEvent.blur(field)
    expect(screen.getByText('81 characters; at most 80 are accepted.')).toBeTruthy()
    expect(changes()).toEqual([])
    fireEvent.change(field, { target: { value: 'new' } })
    fireEvent.keyDown(field, { key: 'Enter' })
    expect(changes()).toEqual([{ name: 'new' }])
  })

  test('a choice is written as it is made, as a number or null where that is meant', () => {
    render(
      <>
        <SelectField collection="trials" row={row} field="hookupId" label="Kind" options={[['a', 'A'], ['b', 'B']]} none="none" />
        <SelectField collection="trials" row={row} field="mainsFrequency" label="Mains" numeric options={[['50', 'fifty'], ['60', 'sixty']]} />
      </>,
    ) // prettier-ignore
    fireEvent.change(screen.getByLabelText('Kind'), { target: { value: 'b' } })
    fireEvent.change(screen.getByLabelText('Kind'), { target: { value: '' } })
    fireEvent.change(screen.getByLabelText('Mains'), { target: { value: '60' } })
    expect(changes()).toEqual([{ hookupId: 'b' }, { hookupId: null }, { mainsFrequency: 60 }])
  })
})

describe('a small number field in a list', () => {
  test('takes any unit on leaving, keeps what it cannot read, wants whole numbers where pieces are counted', () => {
    const got: number[] = []
    render(
      <>
        <QuantityInput
          label="Bore"
          si={0.016}
          dimension="length"
          unit="mm"
          min={0.002}
          max={0.2}
          onCommit={(v) => got.push(v)}
        />
        <QuantityInput
          label="Count"
          si={2}
          dimension="ratio"
          min={0}
          max={9}
          whole
          onCommit={(v) => got.push(v)}
        />
      </>,
    )
    const bore = screen.getByLabelText<HTMLInputElement>('Bore')
    expect(bore.value).toBe('16 mm')
    fireEvent.change(bore, { target: { value: '1/2 in' } })
    fireEvent.blur(bore)
    fireEvent.change(bore, { target: { value: '1 m' } })
    fireEvent.blur(bore)
    expect(screen.getByRole('alert').textContent).toBe('between 2 mm and 200 mm')
    const count = screen.getByLabelText('Count')
    fireEvent.change(count, { target: { value: '2.5' } })
    fireEvent.blur(count)
    expect(screen.getAllByRole('alert')[1]?.textContent).toBe('a whole number')
    expect(got).toEqual([0.0127])
  })
})
