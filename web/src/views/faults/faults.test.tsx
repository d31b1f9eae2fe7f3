import '../../../tests/setup'
import { faultEvidence, type FaultQuestion } from '@ypsometer/contract/faults'
import { QueryClientProvider } from '@tanstack/react-query'
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { MemoryRouter, Route, Routes } from 'react-router'

import { emptyOutbox, haveDossier, haveLists, noServer, written } from '../../../tests/backend'
import {
  demoDossier,
  demoMedia,
  demoRules,
  demoSearches,
  demoSetUps,
  demoStock,
  demoTanks,
} from '../../../tests/dossier'
import { queryClient } from '../../api/cache'
import { Faults } from './Faults'

jest.mock('../../workers/livingRemote', () => ({
  livingRemote: () => ({ evidence: async (q: FaultQuestion) => faultEvidence(q) }),
}))

const show = (at: string) =>
  render(
    <QueryClientProvider client={queryClient}>
      <MemoryRouter initialEntries={[at]}>
        <Routes>
          <Route path="/faults/:id?" element={<Faults />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  )
const next = (): string => document.getElementById('next-title')?.textContent ?? ''
const press = (name: RegExp | string): void => void fireEvent.click(screen.getByRole('button', { name }))

beforeEach(() => {
  noServer()
  emptyOutbox()
  haveLists({ tanks: demoTanks(), media: demoMedia(), 'house-rules': demoRules(), 'set-ups': demoSetUps(), 'stock-classes': demoStock(), 'fault-searches': demoSearches() }) // prettier-ignore
  queryClient.setQueryData(['candidates'], [])
})
afterEach(cleanup)

test('a customer’s filter by its kind, out of reach: symptom, checks, found, put right, cured; all of it kept', () => {
  show('/faults?kind=air-sponge')
  press('Fine bubbles in the tank')
  expect(next()).toMatch(/bubbles are how it works/)
  press('Not the cause')
  expect(written('create').at(-1)).toMatchObject({ symptom: 'fine-bubbles', kind: 'air-sponge', modelId: null, outcomes: { 'air-lift': 'clear' } }) // prettier-ignore
  const second = next()
  expect(second).not.toMatch(/bubbles are how/)
  fireEvent.change(screen.getByLabelText('What you saw'), { target: { value: 'drips' } })
  press('Found it')
  expect(Object.values((written('change').at(-1)?.seen ?? {}) as object)).toContain('drips')
  press('Not fixed')
  expect(Object.values((written('change').at(-1)?.outcomes ?? {}) as object)).toContain('remains')
  press('Found it')
  press('Fixed')
  expect(written('change').at(-1)).toMatchObject({ ended: expect.stringMatching(/^\d{4}-/) })
  expect(screen.getByText('Found and cured')).toBeTruthy()
  press('Take that back')
  expect(written('change').at(-1)?.ended).toBeNull()
})

test('nothing on the list: it ends with somebody licensed, and says so', () => {
  show('/faults?symptom=fine-bubbles&kind=air-sponge')
  for (let i = 0; i < 4; i++) press('Not the cause')
  expect(next()).toBe('Take it to someone licensed')
  expect(document.body.textContent).toMatch(/licensed electrician for anything electric/)
  // Any of them can be looked at again.
  fireEvent.click(within(screen.getByRole('table')).getByRole('button', { name: /bubbles are how it works/ }))
  expect(next()).toMatch(/bubbles are how it works/)
})

test('one of your filters: by the record alone, before any check, with the days it goes by', async () => {
  const dossier = demoDossier('Plainbody 1000')
  haveDossier(dossier)
  const tank = demoTanks().find((t) => t.name === 'Ferry café, counter')
  show(`/faults?model=${dossier.model.id}&tank=${tank?.id}&symptom=weak-flow`)
  await waitFor(() => expect(screen.getByText('By the record alone')).toBeTruthy())
  const alone = screen.getByText('By the record alone').closest('section')?.textContent ?? ''
  expect(alone).toMatch(/Clogged/)
  expect(alone).toMatch(/10 Nov 2026: Flow was down to/)
  expect(next()).toMatch(/^Clogged/)
  expect(document.body.textContent).toMatch(/Unplug filter and heater before hands go in/)
})

test('an air-driven one is told of its air pump; searches on record are opened, and deleted ones are said', () => {
  show('/faults?kind=air-box&symptom=weak-flow')
  expect(document.body.textContent).toMatch(/Unplug the air pump/)
  expect(screen.getByText(/cured: a tray or basket filled above its rim/)).toBeTruthy()
  cleanup()
  show('/faults/00000000-0000-4000-8000-00000000dead')
  expect(screen.getByText(/This search is not here/)).toBeTruthy()
})
