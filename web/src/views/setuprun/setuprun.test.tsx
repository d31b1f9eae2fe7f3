import '../../../tests/setup'
import type { Dossier, SetUp } from '@ypsometer/contract'
import { QueryClientProvider } from '@tanstack/react-query'
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { MemoryRouter, Route, Routes } from 'react-router'

import { emptyOutbox, haveDossier, haveLists, noServer, written } from '../../../tests/backend'
import { demoDossier, demoSetUps } from '../../../tests/dossier'
import { queryClient } from '../../api/cache'
import { SetUpRun } from './SetUpRun'

let dossier: Dossier
let setUp: SetUp
const open = () => {
  haveDossier(dossier)
  haveLists({ 'set-ups': [setUp] })
  return render(
    <QueryClientProvider client={queryClient}>
      <MemoryRouter initialEntries={[`/models/${dossier.model.id}/set-ups/${setUp.id}/run`]}>
        <Routes>
          <Route path="/models/:id/set-ups/:setUpId/run" element={<SetUpRun />} />
        </Routes>
      </MemoryRouter>
    </QueryClientProvider>,
  )
}
const title = (): string => screen.getByRole('heading', { level: 2 }).textContent ?? ''
const press = (name: RegExp): void => void fireEvent.click(screen.getByRole('button', { name }))
const ticked = (): SetUp['ticked'] => (written('change').at(-1)?.ticked ?? {}) as SetUp['ticked']

beforeEach(() => {
  noServer()
  emptyOutbox()
  dossier = demoDossier('Torrent 1400')
  setUp = { ...(demoSetUps()[0] as SetUp), ticked: {} }
})
afterEach(cleanup)

test('one step a screen; right goes on, not right stays and asks why, each kept as it is tapped', () => {
  open()
  expect(title()).toMatch(/Rinse the media/)
  press(/^Done/)
  expect(ticked()).toMatchObject({ 'rinse-media': { state: 'done' } })
  expect(title()).toMatch(/Layers in the order/)
  press(/^Done/)
  press(/^Done/)
  expect(title()).toMatch(/Trays lie level/)
  press(/^Problem/)
  expect(title()).toMatch(/Trays lie level/)
  fireEvent.change(screen.getByLabelText('What is not right?'), { target: { value: 'rocks' } })
  expect(ticked()['trays-level']).toEqual({ state: 'refused', why: 'rocks' })
  // What was answered before is still there.
  expect(ticked()['rinse-media']?.state).toBe('done')
})

test('the space bar says right, n not right, o not for this one, backspace goes back; typing is typing', () => {
  open()
  const key = (k: string): void => void fireEvent.keyDown(document.body, { key: k })
  key(' ')
  expect(title()).toMatch(/Layers in the order/)
  key('o')
  expect(ticked().order?.state).toBe('none')
  key('n')
  expect(ticked().rim?.state).toBe('refused')
  fireEvent.keyDown(screen.getByLabelText('What is not right?'), { key: ' ' })
  expect(title()).toMatch(/above a rim/)
  key('Backspace')
  expect(title()).toMatch(/Layers in the order/)
})

test('before the plug it says what is not right, and goes there; at the end it says what came of it', () => {
  const all = demoSetUps()[0] as SetUp
  const { plug: _, ...rest } = all.ticked
  setUp = { ...all, ticked: rest }
  open()
  // It opens at what nobody has answered.
  expect(title()).toMatch(/Plug in when the bubbles cease/)
  expect(screen.getByRole('alert').textContent).toMatch(
    /Not yet: one thing is not right.*Trays lie level.*rocks/,
  )
  fireEvent.click(screen.getByText(/^Trays lie level/))
  expect(title()).toMatch(/Trays lie level/)
  press(/^Done/)
  cleanup()
  emptyOutbox()
  setUp = all
  open()
  expect(title()).toBe('31 of 32 done')
  expect(screen.getByRole('region', { name: 'Problem' }).textContent).toMatch(/rocks/)
  press(/^Time the first flow/)
  expect(written('create').at(-1)).toMatchObject({ stage: 'set-up', tankId: all.tankId })
})

test('cautions stand where hands go in: hot hoses, siphon, mains, heater', () => {
  open()
  const seen: string[] = []
  for (let i = 0; i < 32; i++) {
    seen.push(document.body.textContent ?? '')
    press(/^Later/)
  }
  const at = (words: RegExp): string => seen.find((s) => words.test(s)) ?? ''
  expect(at(/Ends softened/)).toMatch(/gloves/)
  expect(at(/press its button/)).toMatch(/Never start a siphon by mouth/)
  expect(at(/Impeller turns freely/)).toMatch(/Unplug filter and heater/)
  expect(at(/heater goes on last/)).toMatch(/under water/)
  expect(screen.getByRole('region', { name: 'Not looked at' })).toBeTruthy()
})
