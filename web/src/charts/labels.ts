/** Moves label centres apart to at least `gap`, keeping their order and staying within [min, max]. */
export function spreadLabels(wanted: readonly number[], gap: number, min: number, max: number): number[] {
  const order = wanted.map((y, i) => ({ y, i })).sort((a, b) => a.y - b.y)
  let last = -Infinity
  for (const l of order) {
    l.y = Math.max(l.y, last + gap, min)
    last = l.y
  }
  let next = max + gap
  for (const l of order.reverse()) {
    l.y = Math.min(l.y, next - gap)
    next = l.y
  }
  const out: number[] = []
  for (const l of order) out[l.i] = l.y
  return out
}
