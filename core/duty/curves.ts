/** Curves for drawings, without the fitting library behind them. */
export { circuitLoss } from './circuit'
export { pumpHead } from '../hydraulics/pump'
export { labelBand, pumpBand } from '../hydraulics/bands'
