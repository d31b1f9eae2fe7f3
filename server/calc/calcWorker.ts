// What each thread of the pool runs.
export { carryOut as default } from './work'
