import type { Figure } from '@ypsometer/core/figures/figure'

/** Numbers on show that cannot be asked where they come from; those within `but` are of order, counts or typed. */
export const mute = (root: ParentNode, but = '[aria-expanded], svg, input, [data-plain]'): string[] =>
  [...root.querySelectorAll('.num')]
    .filter((el) => /\d/.test(el.textContent))
    .filter((el) => !el.closest(but))
    .map((el) => el.textContent)

const isFigure = (v: unknown): v is Figure =>
  typeof v === 'object' && v !== null && 'provenance' in v && 'dimension' in v && 'id' in v

/** Every figure anywhere in an answer. */
export function* figuresIn(v: unknown, seen = new Set<unknown>()): Generator<Figure> {
  if (typeof v !== 'object' || v === null || seen.has(v)) return
  seen.add(v)
  if (isFigure(v)) yield v
  for (const inner of v instanceof Map ? v.values() : Object.values(v)) yield* figuresIn(inner, seen)
}
