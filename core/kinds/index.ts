export * from './filters'
export * from './bareOutlet'
export * from './starters'
export * from './templates'
