import type {
  BodyCreate,
  ChamberCreate,
  ClaimCreate,
  ContentItemCreate,
  FillCreate,
  HookupCreate,
  MediumCreate,
  ModelCreate,
  PartCreate,
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
    readonly bodies: readonly z.infer<typeof BodyCreate>[]
    readonly chambers: readonly z.infer<typeof ChamberCreate>[]
    readonly fills: readonly z.infer<typeof FillCreate>[]
    readonly parts: readonly z.infer<typeof PartCreate>[]
    readonly contents: readonly z.infer<typeof ContentItemCreate>[]
  }[]
  readonly media: readonly z.infer<typeof MediumCreate>[]
  readonly tanks: readonly z.infer<typeof TankCreate>[]
}

export const demoBundle = bundle as unknown as DemoBundle
