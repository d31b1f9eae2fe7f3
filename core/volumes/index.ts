export * from './solids'
export * from './interior'
export * from './templates'
export * from './figures'
