export * from './candidate'
