import type {
  ClaimCreate,
  HookupCreate,
  ModelCreate,
  ReadingCreate,
  SpecimenCreate,
  TankCreate,
  TrialCreate,
} from '@ypsometer/contract'
import type { z } from 'zod'
import bundle from './saltery-row.json'

/** The invented Saltery Row bench: what `npm run demo:generate` writes and an empty database is filled with. */
export interface DemoBundle {
  readonly models: readonly {
    readonly model: z.infer<typeof ModelCreate>
    readonly claims: readonly z.infer<typeof ClaimCreate>[]
    readonly specimens: readonly z.infer<typeof SpecimenCreate>[]
    readonly hookups: readonly z.infer<typeof HookupCreate>[]
    readonly trials: readonly (z.infer<typeof TrialCreate> & { readonly createdAt: string })[]
    readonly readings: readonly z.infer<typeof ReadingCreate>[]
  }[]
  readonly tanks: readonly z.infer<typeof TankCreate>[]
}

export const demoBundle = bundle as unknown as DemoBundle
