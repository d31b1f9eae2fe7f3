import { FILTERS } from '@ypsometer/core/kinds/filters'
import type { FitFinding, FittingModel } from '@ypsometer/core/judging/fitting'
import type { TankRecord } from '@ypsometer/core/tanks/tankRecord'

const W = 460
const H = 300
const PAD = 26

/** A box in metres: left, bottom, width, height. */
interface Box {
  readonly x: number
  readonly y: number
  readonly w: number
  readonly h: number
}

interface Picture {
  readonly tank: Box
  readonly water: Box
  readonly body: Box
  readonly cabinet: Box | null
  /** Where a wall stands (m); null where none is drawn. */
  readonly wall: number | null
  readonly words: string
}

/** Where things stand, in metres, seen from the side that matters: rim filters from the end, others from the front. */
function pictureOf(t: TankRecord, m: FittingModel): Picture {
  const { stands } = FILTERS[m.kind]
  const tall = m.heightWithHoses ?? m.outerHeight
  if (stands === 'rim') {
    const behind = m.overhang ?? m.outerDepth
    const tank = { x: 0, y: 0, w: t.width, h: t.height }
    return {
      tank,
      water: { ...tank, h: t.waterLevel },
      body: { x: -behind, y: t.height - m.outerHeight * 0.8, w: m.outerDepth, h: m.outerHeight },
      cabinet: null,
      wall: t.wallGap === null ? null : -t.wallGap,
      words: 'from the end: the filter on the rim, and the wall behind it',
    }
  }
  if (stands === 'inside') {
    const tank = { x: 0, y: 0, w: t.length, h: t.height }
    return {
      tank,
      water: { ...tank, h: t.waterLevel },
      body: { x: t.length * 0.04, y: t.substrateDepth, w: m.outerWidth, h: m.outerHeight },
      cabinet: null,
      wall: null,
      words: 'from the front: the filter in the tank',
    }
  }
  const base = t.bottomHeight ?? (t.cabinetHeight ?? tall) + 0.05
  const tank = { x: 0, y: base, w: t.length, h: t.height }
  const inner = { w: t.cabinetWidth ?? m.outerWidth, h: t.cabinetHeight ?? 0 }
  const x = Math.max(0, (t.length - inner.w) / 2)
  return {
    tank,
    water: { ...tank, h: t.waterLevel },
    body: { x: x + Math.max(0, (inner.w - m.outerWidth) / 2), y: 0, w: m.outerWidth, h: tall },
    cabinet:
      t.cabinetHeight === null && t.cabinetWidth === null ? null : { x, y: 0, ...inner, h: inner.h || base },
    wall: null,
    words: 'from the front: the filter in the cabinet below',
  }
}

/** Filter and tank at one scale; what collides is drawn in rust. */
export function FitDrawing({
  tank,
  model,
  findings,
}: {
  readonly tank: TankRecord
  readonly model: FittingModel
  readonly findings: readonly FitFinding[]
}) {
  const p = pictureOf(tank, model)
  const boxes = [p.tank, p.body, ...(p.cabinet ? [p.cabinet] : [])]
  const left = Math.min(...boxes.map((b) => b.x), p.wall ?? 0)
  const right = Math.max(...boxes.map((b) => b.x + b.w))
  const low = Math.min(...boxes.map((b) => b.y))
  const high = Math.max(...boxes.map((b) => b.y + b.h))
  const scale = Math.min((W - 2 * PAD) / (right - left), (H - 2 * PAD) / (high - low))
  const X = (x: number): number => PAD + (W - 2 * PAD - (right - left) * scale) / 2 + (x - left) * scale
  const Y = (y: number): number => H - PAD - (y - low) * scale
  const rect = (b: Box) => ({ x: X(b.x), y: Y(b.y + b.h), width: b.w * scale, height: b.h * scale })
  const stops = findings.filter((f) => f.level === 'stop')
  const collides = stops.length > 0
  const bar = [1, 0.5, 0.2, 0.1].find((l) => l * scale <= W / 3) ?? 0.1
  const ink = 'var(--color-base-content)'
  return (
    <svg
      viewBox={`0 0 ${W} ${H}`}
      className="block w-full max-w-xl"
      role="img"
      aria-label={`${tank.name} and the filter to one scale, ${p.words}. ${collides ? `${stops.length} ${stops.length === 1 ? 'thing does' : 'things do'} not fit.` : 'Nothing collides.'}`}
    >
      <rect {...rect(p.water)} fill="var(--color-primary)" fillOpacity="0.16" />
      <path
        d={`M${X(p.tank.x)} ${Y(p.tank.y + p.tank.h)}V${Y(p.tank.y)}H${X(p.tank.x + p.tank.w)}V${Y(p.tank.y + p.tank.h)}`}
        fill="none"
        stroke={ink}
        strokeWidth="1.6"
      />
      {p.cabinet && (
        <rect {...rect(p.cabinet)} fill="none" stroke={ink} strokeWidth="1" strokeDasharray="5 3" />
      )}
      {p.wall !== null && (
        <path d={`M${X(p.wall)} ${PAD / 2}V${H - PAD / 2}`} stroke={ink} strokeWidth="2.4" data-what="wall" />
      )}
      <rect
        {...rect(p.body)}
        fill={collides ? 'var(--color-error)' : 'var(--color-base-100)'}
        fillOpacity={collides ? 0.22 : 0.7}
        stroke={collides ? 'var(--color-error)' : ink}
        strokeWidth="1.8"
        data-collides={collides || undefined}
      />
      <text x={X(p.tank.x) + 6} y={Y(p.tank.y + p.tank.h) + 15} fontSize="13" fill={ink}>
        tank
      </text>
      <text x={X(p.body.x) + 4} y={Y(p.body.y) - 5} fontSize="13" fill={ink}>
        filter
      </text>
      {p.cabinet && (
        <text
          x={X(p.cabinet.x) + 4}
          y={Y(p.cabinet.y + p.cabinet.h) + 14}
          fontSize="12.5"
          fill="var(--color-secondary)"
        >
          cabinet, inside
        </text>
      )}
      {p.wall !== null && (
        <text x={X(p.wall) + 5} y={H - 6} fontSize="12.5" fill="var(--color-secondary)">
          wall
        </text>
      )}
      <path d={`M${W - PAD - bar * scale} ${H - 12}v5h${bar * scale}v-5`} fill="none" stroke={ink} />
      <text
        x={W - PAD}
        y={H - 16}
        textAnchor="end"
        fontSize="12.5"
        fill="var(--color-secondary)"
        className="num"
      >
        {bar * 100} cm
      </text>
    </svg>
  )
}
