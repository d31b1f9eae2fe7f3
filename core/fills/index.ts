export * from './place'
export * from './weigh'
export * from './move'
