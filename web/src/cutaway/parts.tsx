import { pointed } from '../figures/pointed'
import { decimal } from '../settings/settings'
import { preferredUnit, type UnitSystem } from '@ypsometer/core/units/dimensions'
import { showQuantity, trimZeros } from '@ypsometer/core/units/format'
import { save, standalone } from '../charts/ChartTools'
import { scaleBar } from './scene'
import type { Scene, SceneStroke } from './shapes'

/** A size or volume as the drawing says it. */
export const said = (v: number, dimension: 'volume' | 'length', system: UnitSystem): string => {
  const s = showQuantity(v, dimension, system, 3)
  return pointed(`${trimZeros(s.number)} ${s.unit}`, decimal.get())
}

const LOOK: Readonly<
  Record<SceneStroke['what'], { readonly width: number; readonly colour?: string; readonly dash?: string }>
> = {
  glass: { width: 3.2 },
  hose: { width: 1.3 },
  tube: { width: 1.3 },
  air: { width: 1.6, colour: 'var(--color-secondary)', dash: '1 3' },
  lid: { width: 2 },
  foot: { width: 1.6 },
  cup: { width: 5 },
  level: { width: 1.4, colour: 'var(--color-primary)' },
  stand: { width: 4 },
}

/** Hoses and tubes have two walls: a wide stroke of ink with a narrower one of paper on it. */
export function Stroke({
  stroke: s,
  d,
  scale,
}: {
  readonly stroke: SceneStroke
  readonly d: string
  readonly scale: number
}) {
  const look = LOOK[s.what]
  if (s.what === 'hose' || s.what === 'tube') {
    const bore = Math.max(5, 0.018 * scale)
    return (
      <g fill="none" strokeLinejoin="round">
        <path d={d} stroke="var(--color-base-content)" strokeWidth={bore + 2.6} />
        <path d={d} stroke="var(--color-base-100)" strokeWidth={bore} />
        <path d={d} stroke="var(--color-primary)" strokeOpacity="0.18" strokeWidth={bore} />
      </g>
    )
  }
  return (
    <path
      d={d}
      fill="none"
      stroke={look.colour ?? 'var(--color-base-content)'}
      strokeWidth={look.width}
      strokeDasharray={look.dash}
      strokeLinejoin="round"
    />
  )
}

/** The water's way: a line with small rounded corners and arrows at the middle of each longer stretch. */
export function WaterPath({ points }: { readonly points: readonly (readonly [number, number])[] }) {
  const [first] = points
  if (!first || points.length < 2) return null
  let d = `M${first[0]} ${first[1]}`
  points.forEach((p, i) => {
    const before = points[i - 1]
    const after = points[i + 1]
    if (!before) return
    if (!after) {
      d += `L${p[0]} ${p[1]}`
      return
    }
    const [a, b] = [near(p, before), near(p, after)]
    d += `L${a[0]} ${a[1]}Q${p[0]} ${p[1]} ${b[0]} ${b[1]}`
  })
  return (
    <g fill="none" stroke="var(--color-primary)" strokeWidth="2.4" pointerEvents="none" aria-hidden="true">
      <path d={d} strokeLinecap="round" strokeLinejoin="round" />
      {points.slice(0, -1).map((p, i) => {
        const q = points[i + 1] ?? p
        if (Math.hypot(q[0] - p[0], q[1] - p[1]) < 26) return null
        const angle = (Math.atan2(q[1] - p[1], q[0] - p[0]) * 180) / Math.PI
        return (
          <path
            key={i}
            d="M-5 -4.5L4 0L-5 4.5Z"
            transform={`translate(${(p[0] + q[0]) / 2} ${(p[1] + q[1]) / 2}) rotate(${angle})`}
            fill="var(--color-primary)"
            stroke="none"
          />
        )
      })}
    </g>
  )
}

/** A point on the way from a corner towards its neighbour: 14 px off, or half way on short stretches. */
function near(corner: readonly [number, number], to: readonly [number, number]): readonly [number, number] {
  const long = Math.hypot(to[0] - corner[0], to[1] - corner[1]) || 1
  const share = Math.min(14, long / 2) / long
  return [corner[0] + (to[0] - corner[0]) * share, corner[1] + (to[1] - corner[1]) * share]
}

export function Impeller({ at, r }: { readonly at: readonly [number, number]; readonly r: number }) {
  const blades = [0, 60, 120].map((a) => (a * Math.PI) / 180)
  return (
    <g
      stroke="var(--color-base-content)"
      strokeWidth="1.6"
      fill="var(--color-base-100)"
      pointerEvents="none"
      aria-hidden="true"
    >
      <circle cx={at[0]} cy={at[1]} r={Math.max(12, r)} />
      {blades.map((a) => (
        <path
          key={a}
          d={`M${at[0] - Math.cos(a) * Math.max(12, r)} ${at[1] - Math.sin(a) * Math.max(12, r)}L${at[0] + Math.cos(a) * Math.max(12, r)} ${at[1] + Math.sin(a) * Math.max(12, r)}`}
        />
      ))}
    </g>
  )
}

export function Bar({
  scene,
  scale,
  x,
  y,
  system,
}: {
  readonly scene: Scene
  readonly scale: number
  readonly x: number
  readonly y: number
  readonly system: UnitSystem
}) {
  const length = scaleBar(scene.bounds.x1 - scene.bounds.x0, preferredUnit('length', system).factor)
  return (
    <g>
      <path
        d={`M${x} ${y - 6}v6h${length * scale}v-6`}
        fill="none"
        stroke="var(--color-base-content)"
        strokeWidth="1.2"
      />
      <text x={x + length * scale + 7} y={y} fontSize="12.5" className="num" fill="var(--color-secondary)">
        {said(length, 'length', system)}
      </text>
    </g>
  )
}

/** Saves the drawing as a file: SVG as it is, PNG at twice its size. */
export function download(root: HTMLElement | null, name: string, as: 'svg' | 'png'): void {
  const svg = root?.querySelector<SVGSVGElement>('svg[data-drawing]')
  if (!svg) return
  const text = standalone(svg)
  const file = `${name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}-section.${as}`
  if (as === 'svg') return save(file, 'image/svg+xml', text)
  const image = new Image()
  image.onload = () => {
    const canvas = document.createElement('canvas')
    canvas.width = svg.clientWidth * 2
    canvas.height = svg.clientHeight * 2
    const context = canvas.getContext('2d')
    if (!context) return
    context.fillStyle = getComputedStyle(document.body).backgroundColor
    context.fillRect(0, 0, canvas.width, canvas.height)
    context.drawImage(image, 0, 0, canvas.width, canvas.height)
    canvas.toBlob((blob) => {
      if (!blob) return
      const a = document.createElement('a')
      a.href = URL.createObjectURL(blob)
      a.download = file
      a.click()
      setTimeout(() => URL.revokeObjectURL(a.href), 1000)
    }, 'image/png')
  }
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(text)}`
}
