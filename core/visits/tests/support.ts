import type { VisitRecord } from '..'

/** A visit on which nothing was looked at but what is said. */
export const visit = (id: string, on: string, more: Partial<VisitRecord> = {}): VisitRecord => ({
  id,
  on,
  stage: 'visit',
  specimenId: 'u1',
  tankId: 't',
  runsBefore: [],
  runsAfter: [],
  dirt: {},
  parts: {},
  cleaned: [],
  failed: [],
  ammonia: null,
  nitrite: null,
  nitrate: null,
  binder: false,
  ...more,
})
/** Runs of 5 L. */
export const runs = (...seconds: readonly number[]) => seconds.map((s) => ({ volume: 0.005, seconds: s }))
