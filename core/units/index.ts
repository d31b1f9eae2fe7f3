export * from './dimensions'
export * from './parse'
export * from './format'
