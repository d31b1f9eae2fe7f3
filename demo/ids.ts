import { createHash } from 'node:crypto'

/** The same id for the same name, every time. */
export function idOf(name: string): string {
  const h = createHash('sha256').update(`demo:${name}`).digest('hex')
  return `${h.slice(0, 8)}-${h.slice(8, 12)}-4${h.slice(13, 16)}-8${h.slice(17, 20)}-${h.slice(20, 32)}`
}

/** The day the bench noted its prices on. */
export const NOTED_ON = '2026-09-02'
