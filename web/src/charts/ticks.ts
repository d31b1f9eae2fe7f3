/** Round axis ticks from 0 to just past `v`: steps of 1, 2 or 5 times a power of ten, at most eight of them. */
export function axisTicks(v: number): number[] {
  const power = 10 ** Math.floor(Math.log10(v / 4))
  const step = [1, 2, 5, 10].map((k) => k * power).find((s) => v / s <= 7) ?? v
  return Array.from({ length: Math.ceil(v / step - 1e-9) + 1 }, (_, i) => Number((i * step).toPrecision(6)))
}
