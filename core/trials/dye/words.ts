import type { MixingResult, TracerResult } from '../../bench'
import { cap } from '../finding'
import { type Figure, type Sentence, inline } from '../../figures'
import type { DyeDoubts } from './doubt'

/** Dye at one point: as a pulse that passes, or as a rise to the mixed strength. */
export interface DyePoint {
  readonly point: string
  readonly mixing: MixingResult | null
  readonly pulse: TracerResult | null
  /** Where its numbers lie in 95 of 100 cases. */
  readonly doubts: DyeDoubts
}

/** Share of the dye that was not waited for from which it is said. */
const TOLD = 0.02

/** One dye point, in words. */
export function dyeSentences(d: DyePoint, figures: readonly Figure[]): Sentence[] {
  const f = (id: string) => figures.find((x) => x.id.endsWith(`-${id}`))
  const coloured = f('coloured')
  const mixed = f('mixed')
  if (d.mixing && coloured)
    return [
      [
        `${cap(d.point)} colours after `,
        inline(coloured),
        ...(mixed
          ? [' and is mixed after ', inline(mixed)]
          : ['. It was not fully mixed when the test ended']),
        '.',
      ],
    ]
  const mean = f('mean')
  if (!d.pulse || !mean) return []
  const dead = f('dead')
  return [
    [
      `${cap(d.point)}: the dye stays `,
      inline(mean),
      ' on average',
      ...(dead && dead.value > (dead.uncertainty ?? 0)
        ? ['. ', inline(dead), ' of the volume is dead']
        : dead
          ? ['. No dead volume beyond the uncertainty']
          : []),
      ...(d.pulse.baffling ? [`. Baffling by t10: ${d.pulse.baffling.label}`] : []),
      d.pulse.extrapolated > TOLD
        ? `. The test ended with ${Math.round(d.pulse.tail * 100)} % of the peak left; the rest is extrapolated.`
        : d.pulse.tail > 0.1
          ? '. The test ended too early, so all times are too short.'
          : '.',
    ],
  ]
}
