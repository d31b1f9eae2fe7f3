import { modelRecord, Opened, type Dossier } from '@ypsometer/contract'
import { CoreError } from '@ypsometer/core/errors/errors'
import { assess } from '@ypsometer/core/judging/assess'
import { eq } from 'drizzle-orm'
import { LRUCache } from 'lru-cache'
import { createHash } from 'node:crypto'
import type { Db } from '../db/client'
import { shelfEntry } from '../db/schema'
import { classesUnder } from '../tanks/stock'
import { dossier } from './queries'
import { readBasis, workedFrom } from './shelfEntries'
import type { ShelfBasis } from './shelfRow'

/** Rows of readings beyond which a dossier is left to the reader's own machine: nobody else waits for it. */
const MOST_READINGS = 1000
/** Answers kept by a server process, those used last. */
const MOST_KEPT = 40

interface Kept {
  readonly from: string
  readonly body: string
}
const kept = new WeakMap<Db, LRUCache<string, Kept>>()

function worked(d: Dossier, { stock, rules, media, bias }: ShelfBasis): Opened['assessment'] {
  if (d.readings.length > MOST_READINGS) return null
  try {
    return assess(modelRecord(d, media), {
      stockClasses: classesUnder(stock, rules, d.model.houseRuleId),
      bias,
    })
  } catch (error) {
    if (error instanceof CoreError) return null
    throw error
  }
}

/**
 * A dossier as a page opens it, as the JSON of `Opened`; it is put together anew when anything in it has been written
 * to since. @throws 404 for a model that is not there.
 */
export async function opened(db: Db, id: string): Promise<string> {
  // The revision is read first: what is written while the rest is read only makes it older than what it names.
  const [[entry], basis] = await Promise.all([
    db.select({ revision: shelfEntry.revision }).from(shelfEntry).where(eq(shelfEntry.modelId, id)),
    readBasis(db),
  ])
  const from = workedFrom(
    entry?.revision ?? 0,
    createHash('sha1').update(JSON.stringify(basis)).digest('base64'),
  )
  const here = kept.get(db) ?? new LRUCache<string, Kept>({ max: MOST_KEPT })
  kept.set(db, here)
  const before = here.get(id)
  if (before?.from === from) return before.body
  const found = await dossier(db, id)
  const { stock, rules, media, bias } = basis
  const body = JSON.stringify(
    Opened.parse({
      dossier: found,
      media: { items: media },
      'house-rules': { items: rules },
      'stock-classes': { items: stock },
      'label-bias': bias,
      assessment: worked(found, basis),
    }),
  )
  here.set(id, { from, body })
  return body
}
