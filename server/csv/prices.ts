import { OFFER_KINDS } from '@ypsometer/contract'
import { readCell } from '@ypsometer/contract/csv'
import { minorDigits } from '@ypsometer/core/units/money'
import { and, eq, inArray, isNull } from 'drizzle-orm'
import { randomUUID } from 'node:crypto'
import type { Db } from '../db/client'
import { claim, model } from '../db/schema'
import { plainRows } from '../documents/export'
import type { Plain } from '../db/undo'
import { cellOf, type FindModel } from './models'
import type { Refuse, Sheet } from './sheet'

interface Line {
  readonly line: number
  readonly row: Plain
}
interface Price {
  readonly line: number
  readonly modelId: string
  readonly kind: string
  readonly minor: number
  readonly currency: string
  readonly on: string | null
}

const KINDS: readonly string[] = ['list', ...OFFER_KINDS]
const COLUMNS = ['maker', 'model', 'modelId', 'kind', 'price', 'currency', 'on']

function priceOf(
  sheet: Sheet,
  find: FindModel,
  { line, cells }: Sheet['lines'][number],
  refuse: Refuse,
): Price | null {
  const cell = (name: string): string => cellOf(sheet, cells, name).trim()
  const wrong = (column: string, message: string): null => (refuse(line, column, message), null)
  const modelId = cell('modelId') || find(sheet, cells)
  if (!modelId) return wrong('model', 'a maker and one of your filters')
  const kind = cell('kind').toLowerCase() || 'list'
  if (!KINDS.includes(kind)) return wrong('kind', KINDS.join(', '))
  const currency = cell('currency').toUpperCase()
  if (!/^[A-Z]{3}$/.test(currency)) return wrong('currency', 'a three-letter currency code such as EUR')
  const amount = readCell(cell('price'), sheet.decimal)
  if (!(amount >= 0)) return wrong('price', 'an amount such as 129.90')
  const minor = Math.round(amount * 10 ** minorDigits(currency))
  return { line, modelId, kind, minor, currency, on: cell('on') || null }
}

/**
 * Changes by a price list: the list price among a model’s claims, and what it is offered for. A list that has any
 * offer of a kind for a model replaces those of that kind.
 */
export async function pricesOf(
  db: Db,
  sheet: Sheet,
  find: FindModel,
  refuse: Refuse,
): Promise<Readonly<Record<string, readonly Line[]>>> {
  for (const { name } of sheet.header)
    if (!COLUMNS.some((c) => c.toLowerCase() === name.toLowerCase()))
      refuse(sheet.line, name, `one of ${COLUMNS.join(', ')}`)
  const prices = sheet.lines.flatMap((l) => priceOf(sheet, find, l, refuse) ?? [])
  const ids = [...new Set(prices.map((p) => p.modelId))]
  if (!ids.length) return {}
  const models = new Map((await plainRows(db, 'models', and(inArray(model.id, ids), isNull(model.deletedAt)))).map((m) => [m.id, m])) // prettier-ignore
  const lists = await plainRows(db, 'claims', and(inArray(claim.modelId, ids), eq(claim.quantity, 'price'), isNull(claim.deletedAt))) // prettier-ignore
  const changed: Line[] = []
  const claims: Line[] = []
  for (const id of ids) {
    const own = prices.filter((p) => p.modelId === id)
    const found = models.get(id)
    if (!found) {
      refuse(own[0]?.line ?? 1, 'modelId', 'a model of the shelf')
      continue
    }
    const offered = own.filter((p) => p.kind !== 'list')
    if (offered.length) {
      const kinds = new Set(offered.map((p) => p.kind))
      const kept = (found.offers as { kind: string }[]).filter((o) => !kinds.has(o.kind))
      const offers = [
        ...kept,
        ...offered.map(({ kind, minor, currency, on }) => ({ kind, minor, currency, on })),
      ]
      changed.push({ line: offered[0]?.line ?? 1, row: { ...found, offers } })
    }
    const there = lists.filter((c) => c.modelId === id)
    own
      .filter((p) => p.kind === 'list')
      .forEach(({ line, minor, currency, on }, i) => {
        const before = there[i]
        const same = before?.amountMinor === minor && before.currency === currency
        claims.push({
          line,
          row: {
            ...(before ?? { id: randomUUID(), modelId: id, quantity: 'price', printedOn: 'price list' }),
            amountMinor: minor,
            currency,
            pricedOn: on,
            // What was typed for another amount says nothing of this one.
            ...(before && !same && { typed: {} }),
          } as unknown as Plain,
        })
      })
  }
  return { ...(changed.length && { models: changed }), ...(claims.length && { claims }) }
}
