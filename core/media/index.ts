export * from './models'
export * from './medium'
export * from './library'
export * from './uv'
