import type { CreatedOf } from '@ypsometer/contract'
import bundle from './saltery-row.json'

/** The invented Saltery Row bench: what `npm run demo:generate` writes and an empty database is filled with. */
export interface DemoBundle {
  readonly models: readonly {
    readonly model: CreatedOf<'models'>
    readonly claims: readonly CreatedOf<'claims'>[]
    readonly specimens: readonly CreatedOf<'specimens'>[]
    readonly hookups: readonly CreatedOf<'hookups'>[]
    readonly trials: readonly (CreatedOf<'trials'> & { readonly createdAt: string })[]
    readonly readings: readonly CreatedOf<'readings'>[]
    readonly bodies: readonly CreatedOf<'bodies'>[]
    readonly chambers: readonly CreatedOf<'chambers'>[]
    readonly fills: readonly CreatedOf<'fills'>[]
    readonly parts: readonly CreatedOf<'parts'>[]
    readonly contents: readonly CreatedOf<'contents'>[]
    readonly visits: readonly CreatedOf<'visits'>[]
  }[]
  readonly media: readonly CreatedOf<'media'>[]
  readonly tanks: readonly CreatedOf<'tanks'>[]
  readonly ticks: readonly CreatedOf<'ticks'>[]
  readonly setUps: readonly CreatedOf<'set-ups'>[]
  readonly changeOvers: readonly CreatedOf<'change-overs'>[]
  readonly faultSearches: readonly CreatedOf<'fault-searches'>[]
}

export { idOf } from './ids'
export const demoBundle = bundle as unknown as DemoBundle
