export * from './errors'
