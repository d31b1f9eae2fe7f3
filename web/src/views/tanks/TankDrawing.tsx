import type { Tank } from '@ypsometer/contract'
import { tankShape } from '@ypsometer/contract/records'
import { tankExtent } from '@ypsometer/core/tanks/volume'

const W = 340
const GAP = 26

/** Outline from above, in metres, front edge below. */
function plan(t: Tank): string {
  switch (t.shape) {
    case 'box':
      return `M0 0H${t.length}V${t.width}H0Z`
    case 'cylinder': {
      const r = t.diameter / 2
      return `M0 ${r}A${r} ${r} 0 1 1 ${t.diameter} ${r}A${r} ${r} 0 1 1 0 ${r}Z`
    }
    case 'bow-front': {
      const rise = t.bowWidth - t.width
      if (rise <= 0) return `M0 0H${t.length}V${t.width}H0Z`
      const r = (t.length * t.length) / (8 * rise) + rise / 2
      return `M0 0H${t.length}V${t.width}A${r} ${r} 0 0 1 0 ${t.width}Z`
    }
    case 'corner': {
      const { side: s, endPanel: e } = t
      const edge = t.front === 'flat' ? `L${e} ${s}` : `A${s - e} ${s - e} 0 0 1 ${e} ${s}`
      return `M0 0H${s}V${e}${edge}H0Z`
    }
  }
}

/** The tank to scale: front view with water and substrate, and plan beneath it. */
export function TankDrawing({ tank }: { readonly tank: Tank }) {
  const { length, width: depth } = tankExtent(tankShape(tank))
  const scale = Math.min((W - 2) / length, 240 / (tank.height + depth))
  const front = tank.height * scale
  const wide = length * scale
  const x = (W - wide) / 2
  const water = tank.waterLevel * scale
  const sand = tank.substrateDepth * scale
  const height = front + depth * scale + GAP + 20
  const bar = niceLength(length)
  return (
    <svg
      viewBox={`0 0 ${W} ${height + 22}`}
      className="block w-full max-w-sm"
      role="img"
      aria-label={`${tank.name} to scale, from the front and from above`}
    >
      <defs>
        <pattern id="substrate" width="6" height="5" patternUnits="userSpaceOnUse">
          <circle cx="1.5" cy="1.5" r="0.8" fill="var(--color-base-content)" />
          <circle cx="4.5" cy="4" r="0.8" fill="var(--color-base-content)" />
        </pattern>
      </defs>
      <rect
        x={x}
        y={1 + front - water}
        width={wide}
        height={water}
        fill="var(--color-primary)"
        fillOpacity="0.18"
      />
      <path d={`M${x} ${1 + front - water}h${wide}`} stroke="var(--color-primary)" strokeWidth="1.4" />
      {sand > 0 && <rect x={x} y={1 + front - sand} width={wide} height={sand} fill="url(#substrate)" />}
      <path
        d={`M${x} 1V${1 + front}H${x + wide}V1`}
        fill="none"
        stroke="var(--color-base-content)"
        strokeWidth="1.6"
      />
      <g transform={`translate(${x} ${front + GAP}) scale(${scale})`}>
        <path
          d={plan(tank)}
          fill="var(--color-primary)"
          fillOpacity="0.12"
          stroke="var(--color-base-content)"
          strokeWidth="1.6"
          vectorEffect="non-scaling-stroke"
        />
      </g>
      <g transform={`translate(${x} ${height})`} stroke="var(--color-base-content)" fill="none">
        <path d={`M0 3v6h${bar * scale}v-6`} />
        <text
          x={bar * scale + 6}
          y={10}
          fontSize="12.5"
          stroke="none"
          fill="var(--color-secondary)"
          className="num"
        >
          {bar * 100} cm
        </text>
      </g>
    </svg>
  )
}

/** A round length of about a third of the drawing, for the scale bar. */
const niceLength = (length: number): number => [1, 0.5, 0.2, 0.1, 0.05].find((l) => l <= length / 2.2) ?? 0.02
