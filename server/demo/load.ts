import { demoBundle } from '@ypsometer/demo'
import type { Db } from '../db/client'
import { loadReviews } from './reviews'
import {
  body,
  chamber,
  changeOver,
  claim,
  contentItem,
  faultSearch,
  fill,
  hookup,
  layer,
  medium,
  model,
  part,
  reading,
  segment,
  setUp,
  specimen,
  tank,
  tick,
  trial,
  visit,
} from '../db/schema'
import { asProgram } from '../db/signing'

/** Fills an empty database with the demo bench, all or nothing. */
export async function loadDemo(db: Db): Promise<void> {
  await asProgram(db, async (tx) => {
    await tx.insert(medium).values([...demoBundle.media])
    for (const m of demoBundle.models) {
      await tx.insert(model).values(m.model)
      await tx.insert(claim).values([...m.claims])
      await tx.insert(specimen).values([...m.specimens])
      for (const [i, { segments, ...own }] of m.hookups.entries()) {
        // The usual hookup stays the first of them.
        await tx.insert(hookup).values({ ...own, createdAt: new Date(Date.UTC(2026, 8, 1) + i * 1000) })
        if (segments.length)
          await tx
            .insert(segment)
            .values(segments.map((s, position) => ({ hookupId: own.id, position, ...s })))
      }
      await tx.insert(body).values([...m.bodies])
      await tx.insert(chamber).values([...m.chambers])
      for (const { layers, ...own } of m.fills) {
        await tx.insert(fill).values(own)
        if (layers.length)
          await tx.insert(layer).values(layers.map((l, position) => ({ ...l, fillId: own.id, position })))
      }
      await tx.insert(trial).values(m.trials.map((t) => ({ ...t, createdAt: new Date(t.createdAt) })))
      await tx.insert(part).values([...m.parts])
      await tx.insert(contentItem).values([...m.contents])
      await tx.insert(reading).values(m.readings.map((r) => ({ ...r, takenAt: new Date(r.takenAt) })))
    }
    await tx.insert(tank).values([...demoBundle.tanks])
    // Visits name tanks, so they come after them.
    const visits = demoBundle.models.flatMap((m) => m.visits)
    if (visits.length) await tx.insert(visit).values(visits)
    if (demoBundle.ticks.length) await tx.insert(tick).values([...demoBundle.ticks])
    await tx.insert(setUp).values([...demoBundle.setUps])
    await tx.insert(changeOver).values([...demoBundle.changeOvers])
    await tx.insert(faultSearch).values([...demoBundle.faultSearches])
  })
  // They are taken from what was written.
  await loadReviews(db)
}
