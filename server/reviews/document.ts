import type { Edition } from '@ypsometer/contract'
import type { Snapshot } from '@ypsometer/contract/review'
import { and, asc, eq, inArray, notInArray } from 'drizzle-orm'
import { review, reviewEdition } from '../db/schema'
import type { Plain } from '../db/undo'
import { canonical } from '../db/remember'
import type { Parts } from '../http/rows'
import { keepPhotos } from './photos'

type Published = Edition & { readonly snapshot: Snapshot }

/** The editions of a review as a document has them, by their numbers; none of them is ever changed. */
export const publishedEditions: Parts<'published', readonly Published[]> = {
  field: 'published',
  replace: async (tx, id, list) => {
    const numbers = list.map((e) => e.number)
    const of = eq(reviewEdition.reviewId, id)
    const there = (await tx.select({ number: reviewEdition.number }).from(reviewEdition).where(of)).map(
      (e) => e.number,
    )
    await tx
      .delete(reviewEdition)
      .where(numbers.length ? and(of, notInArray(reviewEdition.number, numbers)) : of)
    for (const { number, publishedOn, erratum, words, snapshot } of list) {
      if (there.includes(number)) continue
      await tx.insert(reviewEdition).values({ reviewId: id, number, publishedOn, erratum, words, snapshot })
      await keepPhotos(tx, id, snapshot)
    }
    await tx.update(review).set({ editions: list.length }).where(eq(review.id, id))
  },
  read: async (db, ids) => {
    const all = await db
      .select()
      .from(reviewEdition)
      .where(inArray(reviewEdition.reviewId, [...ids]))
      .orderBy(asc(reviewEdition.number))
    const map = new Map<string, Published[]>(ids.map((id) => [id, []]))
    for (const { reviewId, ...edition } of all) map.get(reviewId)?.push(edition as Published)
    return map
  },
}

/** Fault of a review in a document: it contradicts itself, or what was published here. */
export function reviewProblem(
  row: Plain,
  before: Plain | undefined,
): { field: string; message: string } | null {
  const published = row.published as readonly Published[]
  const there = (before?.published ?? []) as readonly Published[]
  const wrong = (field: string, message: string) => ({ field, message })
  if (published.some((e, i) => e.number !== i + 1)) return wrong('published', 'editions numbered 1, 2, 3 …')
  if ((row.state === 'draft') !== (published.length === 0))
    return wrong('state', 'a draft where nothing was published, and only there')
  if ((row.publishedOn ?? null) !== (published.at(-1)?.publishedOn ?? null))
    return wrong('publishedOn', 'the day of the last edition')
  if ((row.state === 'withdrawn') !== (row.withdrawnOn !== null))
    return wrong('withdrawnOn', 'a day where it was withdrawn, and only there')
  if (there.some((e, i) => canonical(e) !== canonical(published[i])))
    return wrong('published', 'every edition that was published here, as it was: none is ever changed')
  return null
}
