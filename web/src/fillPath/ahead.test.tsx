import '../../tests/setup'
import { renderHook, waitFor } from '@testing-library/react'

/** Forecasts asked of a worker, each with what answers it. */
const mockAsked: ((answer: unknown) => void)[] = []
let mockEnded = 0
jest.mock('../workers/pathRemote', () => {
  const { start } = jest.requireActual<{ start: () => { remote: object } }>('../../tests/pathRemote')
  return {
    start: () => ({
      terminate: () => void mockEnded++,
      remote: { ...start().remote, season: () => new Promise((done) => mockAsked.push(done)) },
    }),
  }
})

import { haveLists, noServer } from '../../tests/backend'
import { aroundStation, demoDossier, demoMedia, demoRules, demoTanks } from '../../tests/dossier'
import { useSeason } from './useSeason'

const { wrapper } = aroundStation(demoDossier('Ledger 700'))
const season = () => renderHook(() => useSeason(), { wrapper })
beforeEach(() => {
  noServer()
  haveLists({ media: demoMedia(), 'house-rules': demoRules(), tanks: demoTanks() })
})

test('a forecast that was begun ahead is waited for, not begun again; its worker ends when nobody waits for it', async () => {
  const ahead = season()
  await waitFor(() => expect(mockAsked).toHaveLength(1))
  const visits = season()
  await waitFor(() => expect(visits.result.current.path.answer).not.toBeNull())
  await new Promise((done) => setTimeout(done, 50))
  expect(mockAsked).toHaveLength(1)
  // Whoever began it goes; the other still waits.
  ahead.unmount()
  expect(mockEnded).toBe(0)
  visits.unmount()
  await waitFor(() => expect(mockEnded).toBe(1))
  const again = season()
  await waitFor(() => expect(mockAsked).toHaveLength(2))
  const beside = season()
  const answer = { kept: true }
  mockAsked[1]?.(answer)
  await waitFor(() => expect(again.result.current.answer).toBe(answer))
  await waitFor(() => expect(beside.result.current.answer).toBe(answer))
  expect(mockAsked).toHaveLength(2)
  // And it is there at once for whoever comes later.
  const later = season()
  await waitFor(() => expect(later.result.current.answer).toBe(answer))
  expect(mockAsked).toHaveLength(2)
})
