export * from './place'
export * from './weigh'
