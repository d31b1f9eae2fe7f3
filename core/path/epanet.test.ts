import { openEpanet } from '../network/epanet.fixture'
import { EPANET_GRAVITY, EPANET_VISCOSITY, solveNetwork, type Network } from '../network'
import { topologyOf, type PathCase, type SecondFilter } from '.'
import { caseWith, chamber, layer, medium } from './tests/support'

const COARSE = medium('Coarse foam')
const FINE = medium('Fine pad')
const SINTERED = medium('Sintered glass')
const fill = (more: object = {}) => [
  layer('c', 'low', COARSE, 30),
  layer('f', 'low', FINE, 20, more),
  layer('m', 'high', SINTERED, 80, { gap: 0.002 }),
]
const second: SecondFilter = {
  label: 'Other', arrangement: 'series', running: true, shutOffHead: 1.5, maxFlow: 1000 / 3.6e6, exponent: 1.8, lossCoefficient: 2,
} // prettier-ignore
const walled = { chambers: [chamber('low', { wallGap: 0.002 }), chamber('high')] }

// A filter as the app makes it a network, not one made up for the purpose: with EPANET’s own friction, water and gravity.
test.each<[string, PathCase]>([
  ['layers and a gap', caseWith(fill())],
  ['a gap beside the fine pad', caseWith(fill({ gap: 0.001 }))],
  ['a gap round the tray', caseWith(fill(), walled)],
  ['a pad cut to the wall', caseWith(fill({ sealed: true }), walled)],
  ['trays that take head', caseWith(fill(), { rest: 8e6 })],
  ['two filters in a row', caseWith(fill(), { second })],
  ['two filters side by side', caseWith(fill(), { second: { ...second, arrangement: 'beside' } })],
])('%s: every flow within 0.1 % of EPANET', async (_, c) => {
  const { pumped } = topologyOf(c)
  const network: Network = {
    ...pumped,
    fluid: { kinematicViscosity: EPANET_VISCOSITY, gravity: EPANET_GRAVITY, correlation: 'swamee-jain' },
  }
  const ours = solveNetwork(network).results.map((r) => r.flow)
  const whole = Math.max(...ours.map(Math.abs))
  const engine = await openEpanet(network, 2 * whole)
  const theirs = engine.solve()
  engine.close()
  ours.forEach((q, i) => {
    const t = theirs[i] ?? NaN
    expect(Math.abs(q - t) / Math.max(Math.abs(t), 0.02 * whole)).toBeLessThan(0.001)
  })
})
