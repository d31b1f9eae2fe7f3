export * from './vocabulary'
export * from './reach'
export * from './cautions'
export * from './figures'
