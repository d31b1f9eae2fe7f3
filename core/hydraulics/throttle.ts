import type { Segment } from './segments'
import { FITTING_KINDS } from './tables'

/** Least share a tap is taken to be open: a closed one passes nothing, and is no trial of a flow. */
const LEAST_OPEN = 0.02

/**
 * Velocity heads that a tap costs more when only a share of it is open: K_open (1/s⁴ − 1), s the share. A ball or
 * sleeve turned to a share of its angle leaves about the square of it as area (common practice, no source).
 */
export function throttleLoss(open: number): number {
  const tap = FITTING_KINDS.find((f) => f.id === 'tap')
  return (tap?.lossCoefficient ?? 1) * (1 / Math.max(LEAST_OPEN, Math.min(1, open)) ** 4 - 1)
}

/** A run with a tap in it turned down to a share; as it is when that is all of it. Bore (m) of the run's last piece. */
export function throttledRun(
  segments: readonly Segment[],
  open: number | undefined,
  bore = 0.016,
): readonly Segment[] {
  if (open === undefined || open >= 1) return segments
  const bores = segments.flatMap((s) => (s.kind === 'spray-bar' ? [] : [s.diameter]))
  return [
    ...segments,
    {
      kind: 'fitting',
      id: 'throttle',
      label: `Tap, ${Math.round(open * 100)} % open`,
      lossCoefficient: throttleLoss(open),
      diameter: bores.at(-1) ?? bore,
      count: 1,
    },
  ]
}
