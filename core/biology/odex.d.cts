import type { Solver } from 'odex'
declare const odex: { readonly Solver: typeof Solver }
export = odex
