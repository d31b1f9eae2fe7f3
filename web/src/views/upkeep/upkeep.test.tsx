import '../../../tests/setup'
import { keptFilter, modelRecord } from '@ypsometer/contract'
import { candidateOf } from '@ypsometer/contract/candidate'
import { assess } from '@ypsometer/core/judging/assess'
import { QueryClientProvider } from '@tanstack/react-query'
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react'
import { MemoryRouter } from 'react-router'

import { emptyOutbox, haveLists, noServer, writtenIds, written } from '../../../tests/backend'
import { demoDossier, demoMedia, demoModels, demoRules, demoTanks, demoTicks } from '../../../tests/dossier'
import { queryClient } from '../../api/cache'
import { UpkeepSection } from '../rules/UpkeepSection'
import { Upkeep } from './Upkeep'

const media = demoMedia()
const candidates = demoModels().map((name) => {
  const d = demoDossier(name)
  return candidateOf(d, media, assess(modelRecord(d, media)))
})
const filters = demoTanks().flatMap((t) =>
  t.filters.flatMap((f) => keptFilter(t, f, candidates.find((c) => c.id === f.modelId) ?? null) ?? []),
)

const show = (at = '/upkeep') =>
  render(
    <QueryClientProvider client={queryClient}>
      <MemoryRouter initialEntries={[at]}>
        <Upkeep />
      </MemoryRouter>
    </QueryClientProvider>,
  )
beforeEach(() => {
  noServer()
  emptyOutbox()
  jest.useFakeTimers({ now: Date.UTC(2026, 10, 26, 12) })
  haveLists({ 'house-rules': demoRules(), tanks: demoTanks(), ticks: demoTicks() })
  queryClient.setQueryData(['kept-filters'], { items: filters })
})
afterEach(() => {
  cleanup()
  jest.useRealTimers()
})
const week = () => within(screen.getByRole('region', { name: 'This week' }))
const jobs = (): number => week().queryAllByRole('button', { name: /^Done/ }).length

test('one tap does it: kept under a name that two people share, gone from the list, and it can be taken back', () => {
  show()
  const before = jobs()
  const [first] = week().getAllByRole('button', { name: /^Done: Rinse the pre-filter/ })
  fireEvent.click(first as HTMLElement)
  expect(written('create').at(-1)).toMatchObject({ task: 'prefilter', state: 'done', on: '2026-11-26' })
  expect(jobs()).toBe(before - 1)
  // A second person's device makes the same id of the same task and day.
  const id = writtenIds.at(-1)
  cleanup()
  emptyOutbox()
  show()
  fireEvent.click(week().getAllByRole('button', { name: /^Done: Rinse the pre-filter/ })[0] as HTMLElement)
  expect(writtenIds.at(-1)).toBe(id)
  const lately = within(screen.getByRole('region', { name: 'Recently done' }))
  const [minutes] = lately.getAllByLabelText(/^Minutes for/)
  fireEvent.change(minutes as HTMLElement, { target: { value: '4' } })
  fireEvent.blur(minutes as HTMLElement)
  expect(written('change').at(-1)).toMatchObject({ minutes: 4 })
})

test('skipped and moved: what waits stands on its new day', () => {
  show()
  const [more] = week().getAllByRole('button', { name: /^More:/ })
  fireEvent.click(more as HTMLElement)
  fireEvent.change(week().getByLabelText('Move to'), { target: { value: '2027-01-15' } })
  const before = jobs()
  fireEvent.click(week().getByRole('button', { name: 'Move' }))
  expect(written('create').at(-1)).toMatchObject({ state: 'moved', on: '2027-01-15' })
  expect(jobs()).toBe(before - 1)
  fireEvent.click(week().getAllByRole('button', { name: /^More:/ })[0] as HTMLElement)
  fireEvent.click(week().getByRole('button', { name: 'Skip this time' }))
  expect(written('create').at(-1)).toMatchObject({ state: 'skipped', on: '2026-11-26' })
})

test('a round by place, a ruler with a line a filter, a calendar to subscribe to; nothing to do is said', () => {
  show()
  const lines = screen.getAllByRole('img', { name: /overdue,/ })
  expect(lines).toHaveLength(filters.length)
  fireEvent.change(screen.getByLabelText('Location'), { target: { value: 'Island museum' } })
  expect(week().queryByText('Ferry café, counter')).toBeNull()
  expect(screen.getAllByRole('img', { name: /overdue,/ })).toHaveLength(4)
  fireEvent.click(screen.getByRole('button', { name: 'Calendar' }))
  expect((screen.getByLabelText('Address of the calendar') as HTMLInputElement).value).toMatch(/\/api\/v1\/upkeep\.ics\?place=Island%20museum$/) // prettier-ignore
  cleanup()
  queryClient.setQueryData(['kept-filters'], { items: [] })
  show()
  expect(document.body.textContent).toContain('No filter is running on a tank yet')
})

test('the house rule: by flow, its share, own intervals and back to common practice, days of visits', () => {
  const [house] = demoRules()
  if (!house) throw new Error('no rule')
  render(
    <QueryClientProvider client={queryClient}>
      <UpkeepSection house={{ ...house, upkeep: { ...house.upkeep, every: { carbon: 40 } } }} />
    </QueryClientProvider>,
  )
  fireEvent.change(screen.getByLabelText('The body is opened'), { target: { value: 'flow' } })
  expect(written('change').at(-1)?.upkeep).toMatchObject({ by: 'flow' })
  const days = screen.getByLabelText('Days between: Clean impeller and housing')
  fireEvent.change(days, { target: { value: '45' } })
  fireEvent.blur(days)
  expect(written('change').at(-1)?.upkeep).toMatchObject({ every: { impeller: 45, carbon: 40 } })
  fireEvent.click(screen.getByRole('button', { name: 'back to it' }))
  expect(written('change').at(-1)?.upkeep).toMatchObject({ every: {} })
  const visits = screen.getByLabelText('A filter is looked at again after so many days')
  fireEvent.change(visits, { target: { value: '1, soon' } })
  fireEvent.blur(visits)
  expect(screen.getByRole('alert').textContent).toContain('Whole days from 1 to 3650')
  fireEvent.change(visits, { target: { value: '30, 7' } })
  fireEvent.blur(visits)
  expect(written('change').at(-1)?.upkeep).toMatchObject({ visits: [7, 30] })
})
