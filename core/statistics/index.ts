export * from './distributions'
export * from './leastSquares'
export * from './random'
export * from './summary'
