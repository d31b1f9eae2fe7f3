import type { ImportReport } from '@ypsometer/contract'
import type { FastifyRequest } from 'fastify'
import { randomUUID } from 'node:crypto'
import type { Db, Tx } from '../db/client'
import { asProgram } from '../db/signing'
import { importBatch } from '../db/schema'
import { idempotently } from '../http/idempotency'
import { problem } from '../http/problems'
import { apply, type Applied } from './apply'
import type { ReadDocument, Refused } from './read'

type Photos = ReadonlyMap<string, Uint8Array>

/** Rolls a transaction back with what was found in it. */
class LookedAt extends Error {
  constructor(readonly applied: Applied) {
    super('looked at')
  }
}

const nothing = (refused: readonly Refused[]): ImportReport => ({
  subject: 'bench',
  counts: { new: 0, same: 0, changed: 0 },
  rows: [],
  refused: [...refused],
  undo: null,
})

/** Ways in for a document that was read, whatever it was read from. */
export function waysIn(db: Db) {
  /** Applies a document and lets go of it again. */
  const lookAt = async (read: ReadDocument, photos: Photos): Promise<ImportReport> => {
    if ('refused' in read) return nothing(read.refused)
    try {
      await asProgram(db, async (tx) => {
        throw new LookedAt(await apply(tx, read.document, read.lineOf, photos))
      })
    } catch (error) {
      if (error instanceof LookedAt) return { ...error.applied.report, undo: null }
      throw error
    }
    return nothing([])
  }
  /** Takes a document, all of it or nothing. */
  const take = async (request: FastifyRequest, read: ReadDocument, photos: Photos): Promise<ImportReport> => {
    const refuse = (refused: readonly Refused[]): never => {
      throw problem(422, 'refused', 'The document cannot be taken; nothing was written', {
        errors: refused.map((r) => ({
          field: r.field,
          message: r.line === null ? r.message : `line ${r.line}: ${r.message}`,
        })),
      })
    }
    if ('refused' in read) return refuse(read.refused)
    const answer = await idempotently<ImportReport>(db, request, true, async (tx: Tx) => {
      const { report, undo } = await apply(tx, read.document, read.lineOf, photos)
      if (report.refused.length) refuse(report.refused)
      const written = undo.made.length + undo.changed.length > 0
      const id = randomUUID()
      if (written) await tx.insert(importBatch).values({ id, undo })
      return { status: 201, body: { ...report, undo: written ? id : null } }
    })
    return answer.body
  }
  return { lookAt, take }
}
