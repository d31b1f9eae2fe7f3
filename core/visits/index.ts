export * from './story'
export * from './record'
export * from './used'
