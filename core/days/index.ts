export * from './days'
export * from './text'
