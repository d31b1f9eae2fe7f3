export * from './volume'
export * from './stock'
export * from './range'
export * from './figures'
