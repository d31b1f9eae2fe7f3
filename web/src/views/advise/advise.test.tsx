import '../../../tests/setup'
import { candidateOf } from '@ypsometer/contract/candidate'
import { clogCase, daysUntilDue } from '@ypsometer/contract/clog'
import { tankRecord } from '@ypsometer/contract/records'
import { feedDoubt } from '@ypsometer/core/clogging/tank'
import { learn } from '@ypsometer/core/clogging/study'
import { modelRecord, type Tank } from '@ypsometer/contract'
import { assess } from '@ypsometer/core/judging/assess'
import type { Candidate } from '@ypsometer/core/advice/candidate'
import { STOCK_CLASSES } from '@ypsometer/core/tanks/stock'
import { QueryClientProvider } from '@tanstack/react-query'
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react'
import { MemoryRouter, Route, Routes, useLocation } from 'react-router'

jest.mock('../../workers/rankRemote', () => jest.requireActual<object>('../../../tests/rankRemote'))
jest.mock('../../workers/livingRemote', () => jest.requireActual<object>('../../../tests/livingRemote'))

import { emptyOutbox, haveLists, noServer, written } from '../../../tests/backend'
import { demoDossier, demoMedia, demoModels, demoRules, demoTanks } from '../../../tests/dossier'
import { queryClient } from '../../api/cache'
import { compareTray, units } from '../../settings/settings'
import { Compare } from '../compare/Compare'
import { FiltersOnIt } from '../tanks/FiltersOnIt'
import { Visits } from '../tanks/Visits'
import { Advise } from './Advise'
import { Slip } from './Slip'

const media = demoMedia()
const SHELF: readonly Candidate[] = demoModels().map((name) => {
  const d = demoDossier(name)
  return candidateOf(d, media, assess(modelRecord(d, media)))
})
test('what is driven by air counts the power of an air pump, by rule, where nobody measured it', () => {
  const d = demoDossier('Bellows S2')
  const bare = { ...d, trials: [], readings: [], claims: d.claims.filter((c) => c.quantity !== 'power') }
  const { watts } = candidateOf(bare, media, assess(modelRecord(bare, media)))
  expect([watts?.value, watts?.uncertainty, watts?.provenance]).toEqual([3.5, 1.5, 'rule'])
})
const named = (name: string): Candidate => SHELF.find((c) => c.name === name) as Candidate

/** A shelf as the server would give it. */
function haveShelf(shelf: readonly Candidate[]): void {
  queryClient.setQueryData(
    ['candidates'],
    shelf.map((candidate) => ({ id: candidate.id, candidate, problem: null, old: false })),
  )
}
let where = ''
function Where() {
  const { search } = useLocation()
  where = search
  return null
}
const show = (view: React.ReactNode, at = '/') =>
  render(
    <QueryClientProvider client={queryClient}>
      <MemoryRouter initialEntries={[at]}>
        <Where />
        <Routes>
          <Route path="*" element={view} />
          <Route path="/advise/slip" element={<Slip />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  )
const text = (): string => document.body.textContent ?? ''

beforeEach(() => {
  noServer()
  emptyOutbox()
  queryClient.clear()
  haveLists({ tanks: demoTanks(), media, 'house-rules': demoRules() })
  queryClient.setQueryData(['stock-classes'], {
    items: STOCK_CLASSES.map((s, position) => ({ ...s, position, createdAt: '' })),
  })
  queryClient.setQueryData(['label-bias'], { low: 0.7, high: 0.9, n: 0, words: '' })
  haveShelf(SHELF)
  for (const name of demoModels()) {
    const d = demoDossier(name)
    queryClient.setQueryData(['dossier', d.model.id], d)
  }
  units.set('metric')
  compareTray.set([])
})
afterEach(cleanup)

describe('the counter', () => {
  test('taps change the answer at once, and the address says what is asked', async () => {
    show(<Advise />, '/advise?water=0.06')
    const first = () => within(screen.getByRole('region', { name: /suitable options?$/ })).getAllByRole('listitem')[0]?.textContent ?? '' // prettier-ignore
    expect(first()).toContain('Ledger 700')
    fireEvent.click(screen.getByRole('button', { name: 'on hoses, in a cabinet' }))
    expect(where).toContain('at=outside')
    expect(text()).toContain('It stands in the tank.')
    // A score comes with its interval.
    expect((await screen.findAllByText(/^Score \d+–\d+ of 100/)).length).toBeGreaterThan(0)
    // Two taps in one go both count.
    fireEvent.click(screen.getByRole('button', { name: 'planted' }))
    fireEvent.click(screen.getByRole('button', { name: 'some swim weakly' }))
    expect(new URLSearchParams(where).get('planted')).toBe('1')
    expect(new URLSearchParams(where).get('weak')).toBe('1')
  })
  test('nothing will do: it says so, and what comes nearest; no models: what to do first', () => {
    show(<Advise />, '/advise?water=19')
    expect(text()).toContain('None of your filters fits.')
    expect(text()).toContain('Nothing fits every requirement.')
    expect(within(screen.getByRole('region', { name: 'Not suitable' })).getAllByRole('listitem')[0]?.textContent).toMatch(/Undercroft 90.*Too small: supports 456/) // prettier-ignore
    cleanup()
    haveShelf([])
    show(<Advise />)
    expect(text()).toContain('None of your filters is ready for advice yet.')
  })
  test('a price of nothing, another currency and a model with a label alone are each said', () => {
    const label = named('Ledger 700')
    haveShelf([
      { ...named('Torrent 1400'), price: { minor: 0, currency: 'EUR' }, proposed: null },
      { ...named('Plainbody 1000'), price: { minor: 4000, currency: 'GBP' } },
      { ...label, proposed: null, shipped: label.shipped && { ...label.shipped, mass: null, films: null, basis: 'rule' } },
    ]) // prettier-ignore
    show(<Advise />, '/advise?water=0.06')
    expect(text()).toContain('0.00 EUR')
    expect(text()).toContain('price not known')
    expect(text()).toContain('(priced in GBP, no rate)')
    // It is asked for where it is needed.
    expect(screen.getByText('1 GBP in EUR')).toBeTruthy()
    // Unknown is no pass: it stands apart, after what is known to do.
    const unsure = within(screen.getByRole('region', { name: 'Not tested' }))
    expect(unsure.getByText('unknown: what its media support')).toBeTruthy()
    expect(text()).toContain('By flow alone it supports at most')
  })
  test('what they have on a saved tank, and a slip that is kept with it', async () => {
    const tank = demoTanks().find((t) => t.name === 'Dentist, front window') as Tank
    show(<Advise />, `/advise?tank=${tank.id}`)
    const have = within(screen.getByRole('region', { name: 'What they have' }))
    // 1.2 kg of the Ledger and its foam carry 127 L; the tank holds 92.9.
    expect(have.getByText('Keep').closest('li')?.textContent).toMatch(/KeepEnough: supports 127 ± 44.L/)
    fireEvent.click(screen.getAllByRole('link', { name: /^Slip for Ledger 700/ })[0] as HTMLElement)
    const slip = (await screen.findByRole('article', { name: 'Slip' })).textContent
    expect(slip).toContain('Dentist, front window: ')
    // It is the rule of the house until that goes by flow; within a year nothing is due here.
    expect(slip).toContain('Maintenance dates at the usual interval for its kind')
    fireEvent.click(screen.getByRole('button', { name: 'Keep with the tank' }))
    const visits = written('change')[0]?.visits as Tank['visits']
    expect(visits[0]).toMatchObject({
      what: 'advice',
      text: expect.stringContaining('Together they support') as string,
    })
  })
  test('a filter that is still to come is due when one that nothing was seen of is; without a body nobody can say', () => {
    const d = demoDossier('Ledger 700')
    const stock = STOCK_CLASSES.find((c) => c.code === 'normal') as (typeof STOCK_CLASSES)[number]
    const own = tankRecord(demoTanks().find((t) => t.name === 'Dentist, front window') as Tank, stock)
    const tank = { ...own, feed: 3 * (own.feed ?? 0) }
    const fillId = d.fills.find((f) => f.basis === 'as-shipped')?.id ?? ''
    const asked = { dossier: d, fillId, media, by: {}, tank, dueAt: 0.7 }
    const c = clogCase(d, media, assess(modelRecord(d, media)), { tank, fillId })
    const { due } = learn({ ...(c as NonNullable<typeof c>), intake: [] }, feedDoubt(tank), [], 0.7)
    expect(due.middle).toBeGreaterThan(20)
    expect(daysUntilDue(asked)).toBeCloseTo(due.middle as number, 6)
    // Fed twice as much it is due in less than half the time: what is caught faster rots no faster.
    expect(daysUntilDue({ ...asked, tank: { ...tank, feed: 2 * (tank.feed ?? 0) } })).toBeLessThan((due.middle as number) / 2) // prettier-ignore
    expect(daysUntilDue({ ...asked, dossier: { ...d, chambers: [] } })).toBeNull()
    expect(daysUntilDue({ ...asked, fillId: 'none' })).toBeNull()
  })
  test('what is still to be worked out again is said', () => {
    queryClient.setQueryData(
      ['candidates'],
      SHELF.map((candidate, i) => ({ id: candidate.id, candidate, problem: null, old: i < 2 })),
    )
    show(<Advise />)
    expect(text()).toContain('2 of 11 models are being recalculated')
  })
  test('a tank told by its shape: a disc of 50 cm with 40 cm of water holds 78.5 L; what does not fit is said', () => {
    show(<Advise />, '/advise?shape=cylinder&size-height=0.4')
    expect(text()).toContain('78.5')
    fireEvent.click(screen.getByRole('button', { name: 'a bow front' }))
    const bow = screen.getByRole('textbox', { name: 'Width in the middle' })
    fireEvent.change(bow, { target: { value: '20' } })
    fireEvent.blur(bow)
    expect(screen.getByRole('alert').textContent).toMatch(/bowWidth|Width in the middle/)
    cleanup()
    show(<Advise />, '/advise?shape=pyramid')
    expect(text()).toContain('120')
  })
  test('an option that is gone, and a tank whose sizes do not fit together', () => {
    show(<Advise />, '/advise/slip?water=0.06&option=nobody')
    expect(text()).toContain('is not among those for the tank any more')
    cleanup()
    const [tank] = demoTanks()
    haveLists({ tanks: [{ ...(tank as Tank), substrateDepth: 3 }] })
    show(<Advise />, `/advise?tank=${tank?.id}`)
    expect(screen.getByRole('alert').textContent).toContain('do not fit together')
  })
})

describe('rivals side by side', () => {
  const at = (...names: string[]): string => `/compare?m=${names.map((n) => named(n).id).join(',')}`
  test('differences outside their doubts are marked, the first is what the others are held against', () => {
    show(<Compare />, at('Ledger 700', 'Plainbody 1000'))
    const row = (name: RegExp): string => screen.getByRole('row', { name }).textContent ?? ''
    // 127 ± 44 and 85 ± 35 L: media that nobody measured, so no difference can be told; worth of media alike.
    expect(row(/^Supports with supplied media/)).toMatch(/127 ± 44.*85 ± 35.*no difference/)
    expect(row(/^Installed flow, supplied media/)).toMatch(/491.*606.*higher/)
    expect(row(/^Sound level/)).toContain('no difference')
    fireEvent.click(screen.getByRole('button', { name: /Set as reference/ }))
    expect(row(/^Installed flow, supplied media/)).toMatch(/606.*491.*lower/)
    fireEvent.click(screen.getByRole('button', { name: 'Remove Ledger 700' }))
    expect(where).not.toContain(named('Ledger 700').id)
  })
  test('two taken out in one go are both gone', () => {
    show(<Compare />, at('Ledger 700', 'Plainbody 1000', 'Torrent 1400'))
    const out = (name: string) => screen.getByRole('button', { name: `Remove ${name}` })
    const [one, other] = [out('Ledger 700'), out('Torrent 1400')]
    act(() => {
      one.click()
      other.click()
    })
    expect(decodeURIComponent(where)).toContain(`m=${named('Plainbody 1000').id}`)
    for (const gone of ['Ledger 700', 'Torrent 1400']) expect(where).not.toContain(named(gone).id)
  })
  test('two currencies stay apart until a rate with its date is given', () => {
    const pounds = { ...named('Plainbody 1000'), price: { minor: 5000, currency: 'GBP' } }
    haveShelf([named('Ledger 700'), pounds])
    show(<Compare />, at('Ledger 700', 'Plainbody 1000'))
    const owning = within(screen.getByRole('region', { name: 'What it costs to own' }))
    expect(owning.getByText(/apart, in another currency/)).toBeTruthy()
    // The body is in pounds: without a rate no sum is said.
    expect(owning.getByText('not known: the price of the filter')).toBeTruthy()
    const add = owning.getByRole('button', { name: 'Add rate' })
    expect((add as HTMLButtonElement).disabled).toBe(true)
    fireEvent.change(owning.getByLabelText('1 GBP in EUR'), { target: { value: 'x' } })
    expect(owning.getByRole('alert').textContent).toContain('above 0')
    fireEvent.change(owning.getByLabelText('1 GBP in EUR'), { target: { value: '1,15' } })
    fireEvent.change(owning.getByLabelText('of'), { target: { value: '2026-11-20' } })
    fireEvent.click(add)
    // It is the house’s, with its day, and holds everywhere.
    const advice = written('change').at(-1)?.advice as { rates: unknown }
    expect(advice.rates).toEqual({ GBP: { rate: 1.15, on: '2026-11-20' } })
  })
  test('nothing chosen, and a model that is no longer there', () => {
    show(<Compare />, '/compare?m=gone')
    expect(text()).toContain('Nothing to compare yet')
  })
})

describe('what runs on a tank', () => {
  const tank = (more: Partial<Tank>): Tank => ({ ...(demoTanks().find((t) => t.name === 'Vet, quarantine') as Tank), ...more }) // prettier-ignore
  const one = { id: 'a', modelId: named('Ledger 700').id, fill: 'as-shipped', label: '', kind: null, ratedFlow: null, since: null } as const // prettier-ignore
  test('one of your filters, one that was taken off it, one by its label', () => {
    const gone = { ...one, id: 'b', modelId: '00000000-0000-4000-8000-00000000dead' }
    const bare = {
      ...one,
      id: 'c',
      modelId: null,
      label: 'Old',
      kind: 'canister',
      ratedFlow: 500 / 3.6e6,
    } as const
    show(<FiltersOnIt tank={tank({ filters: [one, gone, bare] })} stock={STOCK_CLASSES} />)
    expect(text()).toContain('a filter that was deleted')
    expect(text()).toMatch(/By flow alone at most/)
    fireEvent.change(screen.getByLabelText('Ledger 700: with'), { target: { value: 'proposed' } })
    fireEvent.click(screen.getByRole('button', { name: 'Remove Old' }))
    const [first, second] = written('change').map((w) => w.filters as Tank['filters'])
    expect(first?.[0]?.fill).toBe('proposed')
    expect(second?.map((f) => f.id)).toEqual(['a', 'b'])
  })
  test('a visit is noted and deleted', () => {
    const seen = { id: 'v', on: '2026-11-01', what: 'note', text: 'Rinsed.\nAll well.' } as const
    show(<Visits tank={tank({ visits: [seen] })} />)
    expect(text()).toContain('2026-11-01Note: Rinsed.')
    fireEvent.change(screen.getByLabelText('Note something'), { target: { value: ' Fed less ' } })
    fireEvent.click(screen.getByRole('button', { name: 'Add' }))
    fireEvent.click(screen.getByRole('button', { name: 'Delete the note of 2026-11-01' }))
    const [added, deleted] = written('change').map((w) => w.visits as Tank['visits'])
    expect(added?.at(-1)).toMatchObject({ what: 'note', text: 'Fed less' })
    expect(deleted).toEqual([])
  })
})
