// The package has types in its source only, which are not as strict as ours: what is used of it is typed beside this.
export { Solver } from 'odex'
