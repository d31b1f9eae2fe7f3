import type { PlacedChamber } from '@ypsometer/core/fills/place'
import type { Outcome } from '@ypsometer/core/path/outcome'
import { chamberBox, layerBox } from './layers'

interface Props {
  readonly outcome: Outcome
  readonly chamber: PlacedChamber
  readonly x: (v: number) => number
  readonly y: (v: number) => number
}

const FULL = 24

/** Arrows through a chamber’s layers and round them, as wide as their share of all the water. */
export function FlowArrows({ outcome, chamber, x, y }: Props) {
  const mine = outcome.layers.filter((l) => l.chamber.chamber.id === chamber.chamber.id)
  if (!mine.length || outcome.flow <= 0) return null
  const whole = chamberBox(chamber)
  const share = (q: number): number => Math.min(1, q / outcome.flow)
  return (
    <g pointerEvents="none" aria-hidden="true">
      {mine.map((l) => {
        const b = layerBox(chamber, l.placed)
        const [x0, x1, y0, y1] = [x(b.x0), x(b.x1), y(b.y1), y(b.y0)]
        const through = share(l.through)
        const past = share(l.past)
        const id = l.placed.layer.id
        if (chamber.way === 'inward')
          return (
            <g key={id}>
              <Arrow
                from={[x0 - 16, (y0 + y1) / 2]}
                to={[x0 + (x1 - x0) * 0.4, (y0 + y1) / 2]}
                share={through}
              />
              <Arrow
                from={[x1 + 16, (y0 + y1) / 2]}
                to={[x1 - (x1 - x0) * 0.4, (y0 + y1) / 2]}
                share={through}
              />
            </g>
          )
        if (chamber.way === 'across') {
          const mid = (y0 + y1) / 2
          return (
            <g key={id}>
              <Arrow from={[x0 - 7, mid]} to={[x1 + 7, mid]} share={through} />
              {past > 0.005 && <Arrow from={[x0 - 7, y0 - 8]} to={[x1 + 7, y0 - 8]} share={past} round />}
            </g>
          )
        }
        const [from, to] = chamber.way === 'up' ? [y1, y0] : [y0, y1]
        const mid = (x0 + x1) / 2
        const edge = Math.max(5, (FULL * past) / 4 + 1)
        return (
          <g key={id}>
            <Arrow from={[mid, from]} to={[mid, to]} share={through} />
            {past > 0.005 &&
              [x(whole.x0) + edge, x(whole.x1) - edge].map((at) => (
                <Arrow key={at} from={[at, from]} to={[at, to]} share={past / 2} round />
              ))}
          </g>
        )
      })}
    </g>
  )
}

interface ArrowProps {
  readonly from: readonly [number, number]
  readonly to: readonly [number, number]
  readonly share: number
  /** Round the media: dashed, in the colour of loss. */
  readonly round?: boolean
}

function Arrow({ from, to, share, round }: ArrowProps) {
  const width = Math.max(1.2, FULL * share)
  const colour = round ? 'var(--color-error)' : 'var(--color-primary)'
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]]
  const long = Math.hypot(dx, dy) || 1
  const head = Math.min(long * 0.6, 5 + width * 0.6)
  const [ux, uy] = [dx / long, dy / long]
  const neck = [to[0] - ux * head, to[1] - uy * head] as const
  const side = Math.max(4.5, width * 0.8)
  return (
    <g>
      <path
        d={`M${from[0]} ${from[1]}L${neck[0]} ${neck[1]}`}
        stroke={colour}
        strokeWidth={width}
        strokeOpacity={round ? 1 : 0.8}
        strokeDasharray={round ? '4 3' : undefined}
        fill="none"
      />
      <path
        d={`M${to[0]} ${to[1]}L${neck[0] - uy * side} ${neck[1] + ux * side}L${neck[0] + uy * side} ${neck[1] - ux * side}Z`}
        fill={colour}
      />
    </g>
  )
}
