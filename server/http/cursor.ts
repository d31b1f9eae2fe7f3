import { fieldProblem } from './problems'

/** A place in a sorted list: the sort value and the id of the last row given. */
export interface Cursor {
  readonly value: string | number | null
  readonly id: string
}

export const writeCursor = (c: Cursor): string =>
  Buffer.from(JSON.stringify([c.value, c.id])).toString('base64url')

/** Reads a cursor the server gave earlier. @throws a problem naming `cursor` for anything else. */
export function readCursor(text: string | undefined): Cursor | null {
  if (text === undefined) return null
  try {
    const [value, id] = JSON.parse(Buffer.from(text, 'base64url').toString('utf8')) as unknown[]
    const good = typeof value === 'string' ? !value.includes('\0') : value === null || Number.isFinite(value)
    if (good && typeof id === 'string' && /^[0-9a-f-]{36}$/.test(id))
      return { value: value as Cursor['value'], id }
  } catch {
    // falls through to the refusal
  }
  throw fieldProblem('cursor', 'the `next` of an earlier answer, unchanged', 400)
}
