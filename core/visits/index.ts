export * from './history'
export * from './record'
export * from './used'
