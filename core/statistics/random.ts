// Looked up once: some hosts make every look at a global slow.
const { imul } = Math

/**
 * A seeded stream of uniform numbers in [0, 1): mulberry32 (Tommy Ettinger, public domain). For simulations only.
 */
export function seeded(seed: number): () => number {
  let a = seed | 0
  return () => {
    a = (a + 0x6d2b79f5) | 0
    let t = imul(a ^ (a >>> 15), 1 | a)
    t = (t + imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/** A seeded stream of standard normal numbers, by Box and Muller (1958). */
export function seededNormal(seed: number): () => number {
  const uniform = seeded(seed)
  return () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform())
}
