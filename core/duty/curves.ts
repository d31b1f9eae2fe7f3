/** What a drawing of curves needs, without the fitting library behind it. */
export { circuitLoss } from './circuit'
export { pumpHead } from '../hydraulics/pump'
export { labelBand, pumpBand } from '../hydraulics/bands'
