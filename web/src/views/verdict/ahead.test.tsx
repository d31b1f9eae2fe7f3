import '../../../tests/setup'
import { cleanup, render, screen, waitFor } from '@testing-library/react'

/** Stories told by the worker. */
const mockSimulate = jest.fn<Promise<unknown>, [unknown]>()
jest.mock('../../workers/livingRemote', () => ({
  livingRemote: () => ({ tell: mockSimulate, chances: async () => null }),
}))

import { simulate, type Scenario } from '@ypsometer/core/biology/inTime'
import { haveLists, noServer } from '../../../tests/backend'
import { aroundStation, demoDossier, demoTanks } from '../../../tests/dossier'
import Ahead from '../../fillPath/ahead'
import TankRange from '../../stations/tanks'

afterEach(cleanup)

test('what Tanks tells first was worked out while Path was looked at, and is there at once', async () => {
  noServer()
  haveLists({ tanks: demoTanks() })
  mockSimulate.mockImplementation(async (scenario) => simulate(scenario as Scenario))
  const { wrapper } = aroundStation(demoDossier('Ledger 700'))
  const before = render(<Ahead station="path" />, { wrapper })
  await waitFor(() => expect(mockSimulate).toHaveBeenCalledTimes(1))
  await mockSimulate.mock.results[0]?.value
  before.unmount()
  render(<TankRange />, { wrapper })
  expect(screen.getByRole('heading', { name: 'In time' })).toBeTruthy()
  expect(screen.queryByText('Loading …')).toBeNull()
  expect(mockSimulate).toHaveBeenCalledTimes(1)
})
