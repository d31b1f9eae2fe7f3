export * from './distributions'
export * from './leastSquares'
