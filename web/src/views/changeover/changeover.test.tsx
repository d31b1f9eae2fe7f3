import '../../../tests/setup'
import { modelRecord } from '@ypsometer/contract'
import { candidateOf } from '@ypsometer/contract/candidate'
import { planChange } from '@ypsometer/core/hands/changeOver'
import { assess } from '@ypsometer/core/judging/assess'
import { QueryClientProvider } from '@tanstack/react-query'
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { MemoryRouter, Route, Routes } from 'react-router'

import { emptyOutbox, haveLists, noServer, written } from '../../../tests/backend'
import {
  demoChanges,
  demoDossier,
  demoMedia,
  demoModels,
  demoRules,
  demoStock,
  demoTanks,
} from '../../../tests/dossier'
import { queryClient } from '../../api/cache'
import { kitCounts } from '../../settings/settings'
import { ChangeOver } from './ChangeOver'

jest.mock('../../workers/livingRemote', () => ({
  livingRemote: () => ({ plan: async (...asked: Parameters<typeof planChange>) => planChange(...asked) }),
}))

const media = demoMedia()
const shelf = demoModels().map((name) => {
  const d = demoDossier(name)
  const candidate = candidateOf(d, media, assess(modelRecord(d, media)))
  return { id: d.model.id, candidate, problem: null, old: false }
})
const [beside, moved] = demoChanges()
const show = (change: NonNullable<typeof beside>, changes = demoChanges()) => {
  haveLists({
    tanks: demoTanks(),
    'house-rules': demoRules(),
    'change-overs': changes,
    'stock-classes': demoStock(),
  })
  queryClient.setQueryData(['candidates'], shelf)
  return render(
    <QueryClientProvider client={queryClient}>
      <MemoryRouter initialEntries={[`/tanks/${change.tankId}/changes/${change.id}`]}>
        <Routes>
          <Route path="/tanks/:id/changes/:changeId" element={<ChangeOver />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  )
}
if (!beside || !moved) throw new Error('the demo has two change-overs')
const told = () => waitFor(() => expect(screen.queryByText('Loading …')).toBeNull(), { timeout: 20000 })

jest.setTimeout(60000)
beforeEach(() => {
  noServer()
  emptyOutbox()
  kitCounts.set('nitrogen')
})
afterEach(cleanup)

test('half way: steps with their dates, what is foretold beside what was read, and where the tests moved it', async () => {
  show(moved)
  await told()
  expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('Triptych 600 to Ledger 700')
  expect(document.body.textContent).toMatch(/Bacteria grow at different speeds\./)
  expect(document.body.textContent).toMatch(
    /bacteria here grow 0\.\d+ times as fast as assumed.*The end moves \d+ days later\./,
  )
  fireEvent.click(screen.getByRole('checkbox', { name: /Full feeding, test once a week/ }))
  expect(written('change').at(-1)).toMatchObject({ done: { move: '2026-11-12', safe: expect.stringMatching(/^\d{4}/) } }) // prettier-ignore
  // The tank’s own list is brought in line by a word, not by itself.
  fireEvent.click(screen.getByRole('button', { name: 'Remove Triptych 600 from the tank' }))
  expect(written('change').at(-1)).toMatchObject({ filters: [] })
})

test('a test is noted with its day; one before the start is not taken, and the number can be typed with its unit', async () => {
  show(moved)
  await told()
  fireEvent.change(screen.getByLabelText('Tested on'), { target: { value: '2026-11-01' } })
  expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Record test' }).disabled).toBe(true)
  fireEvent.change(screen.getByLabelText('Tested on'), { target: { value: '2026-11-26' } })
  const ammonia = screen.getByLabelText('Ammonia read')
  fireEvent.change(ammonia, { target: { value: 'lots' } })
  fireEvent.blur(ammonia)
  expect(screen.getByRole('alert').textContent).toMatch(/is not a number/)
  fireEvent.change(ammonia, { target: { value: '0.2 mg/L' } })
  fireEvent.blur(ammonia)
  fireEvent.click(screen.getByRole('button', { name: 'Record test' }))
  const tests = written('change').at(-1)?.tests as { on: string; ammonia: number }[]
  expect(tests).toHaveLength(5)
  expect(tests.at(-1)?.ammonia).toBeCloseTo(2e-4, 9)
})

test('beside each other: when the old one can go; of a filter nobody knows the steps stand, and why no more does', async () => {
  show(beside)
  await told()
  expect(screen.getByRole('heading', { name: /Remove the old filter on 17 Dec 2026/ })).toBeTruthy()
  cleanup()
  emptyOutbox()
  const unknown = { ...beside, next: { ...beside.next, modelId: null, kind: 'canister' as const, label: 'A grey one' } } // prettier-ignore
  show(unknown, [unknown])
  expect(screen.getByText(/The media of A grey one are unknown/)).toBeTruthy()
  expect(screen.getByRole('checkbox', { name: /17 Dec 2026.*Remove the old filter/ })).toBeTruthy()
})
