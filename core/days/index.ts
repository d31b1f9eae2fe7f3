export * from './days'
