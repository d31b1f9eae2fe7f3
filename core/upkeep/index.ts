export * from './interval'
export * from './plan'
export * from './rule'
export { ruleText } from './recurrence'
