export { BadNetwork } from './bad'
export * from './elements'
export * from './solve'
export * from './inp'
