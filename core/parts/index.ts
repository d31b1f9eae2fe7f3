export * from './vocabulary'
export * from './partKind'
