export * from './figure'
export * from './reason'
