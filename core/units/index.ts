export * from './dimensions'
export * from './parse'
export * from './format'
export * from './money'
