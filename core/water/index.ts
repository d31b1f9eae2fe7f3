export * from './properties'
