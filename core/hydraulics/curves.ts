/** What a drawing of curves needs, without the fitting library behind it. */
export { circuitLoss } from './circuit'
export { pumpHead } from './pump'
export { labelBand, pumpBand } from './bands'
