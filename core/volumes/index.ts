export * from './solids'
export * from './interior'
export * from './figures'
