import { isNull } from 'drizzle-orm'
import type { Db } from '../db/client'
import { model } from '../db/schema'
import type { Sheet } from './sheet'

/** The model that a line names by maker and model; undefined where there is none. */
export type FindModel = (sheet: Sheet, cells: readonly string[]) => string | undefined

/** The cell of a column, by its name. */
export const cellOf = ({ header }: Sheet, cells: readonly string[], name: string): string => {
  const i = header.findIndex((h) => h.name.toLowerCase() === name.toLowerCase())
  return i < 0 ? '' : (cells[i] ?? '')
}

const keyOf = (maker: string, name: string): string =>
  `${maker.trim().toLowerCase()}\n${name.trim().toLowerCase()}`

export async function modelsByName(db: Db): Promise<FindModel> {
  const all = await db
    .select({ id: model.id, maker: model.maker, name: model.name })
    .from(model)
    .where(isNull(model.deletedAt))
  const ids = new Map(all.map((m) => [keyOf(m.maker, m.name), m.id]))
  return (sheet, cells) => ids.get(keyOf(cellOf(sheet, cells, 'maker'), cellOf(sheet, cells, 'model')))
}
