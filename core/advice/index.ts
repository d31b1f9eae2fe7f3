export * from './byLabel'
export * from './candidate'
