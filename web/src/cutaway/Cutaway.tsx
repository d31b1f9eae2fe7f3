import type { FilterKind } from '@ypsometer/core/judging'
import { solidVolume, type BodyRecord, type Chamber, type InteriorProblem } from '@ypsometer/core/volumes'
import { showQuantity, trimZeros, type UnitSystem } from '@ypsometer/core/units'
import { Download, Ruler } from 'lucide-react'
import { useId, useMemo, useRef, useState } from 'react'
import { save, standalone } from '../charts/ChartTools'
import { spreadLabels } from '../charts/labels'
import { useWidth } from '../charts/useWidth'
import { units } from '../frame/settings'
import { LITRE_WORDS, Patterns } from './patterns'
import { buildScene, scaleBar, type Point, type Scene, type SceneChamber, type SceneStroke } from './scene'

interface Props {
  readonly kind: FilterKind
  readonly name: string
  readonly body: BodyRecord
  readonly chambers: readonly Chamber[]
  readonly problems?: readonly InteriorProblem[]
  readonly selected?: string | null
  readonly onSelect?: (id: string) => void
}

const LABELS = 176
const NARROW = 440
const MAX_HEIGHT = 560

const litres = (c: Chamber): number => {
  try {
    return solidVolume(c.solid)
  } catch {
    return 0
  }
}
const said = (v: number, dimension: 'volume' | 'length', system: UnitSystem): string => {
  const s = showQuantity(v, dimension, system, 3)
  return `${trimZeros(s.number)} ${s.unit}`
}

/** The section drawing, to scale from the measured sizes alone. Chambers can be chosen by pointer and by keyboard. */
export function Cutaway({ kind, name, body, chambers, problems = [], selected = null, onSelect }: Props) {
  const system = units.use()
  const id = useId().replace(/[^\w-]/g, '')
  const root = useRef<HTMLDivElement>(null)
  const [dims, setDims] = useState(false)
  const width = useWidth(root, 520)
  const narrow = width < NARROW
  const scene = useMemo(() => buildScene(kind, body, chambers), [kind, body, chambers])
  const { bounds } = scene
  const margin = dims ? 46 : 10
  const room = width - (narrow ? 0 : LABELS) - 2 * margin
  const scale = Math.min(room / (bounds.x1 - bounds.x0), MAX_HEIGHT / (bounds.y1 - bounds.y0))
  const drawn = (bounds.x1 - bounds.x0) * scale
  const left = margin + Math.max(0, (room - drawn) / 2)
  const x = (v: number): number => left + (v - bounds.x0) * scale
  const y = (v: number): number => margin + (bounds.y1 - v) * scale
  const height = (bounds.y1 - bounds.y0) * scale + 2 * margin + 26
  const d = (points: readonly Point[], close = true): string =>
    points.map((p, i) => `${i ? 'L' : 'M'}${x(p[0]).toFixed(1)} ${y(p[1]).toFixed(1)}`).join('') +
    (close ? 'Z' : '')
  const bad = new Set(problems.map((p) => p.chamberId))
  const labels = spreadLabels(
    scene.chambers.map((c) => y(c.centre[1])),
    34,
    16,
    height - 44,
  )
  const labelX = left + drawn + 22
  return (
    <div ref={root}>
      <svg
        data-drawing
        viewBox={`0 0 ${width} ${height}`}
        width={width}
        height={height}
        className="block max-w-full"
        role="group"
        aria-label={`Section of ${name}, to scale`}
        fontFamily="var(--font-sans)"
      >
        <Patterns id={id} />
        <desc>{inWords(kind, chambers, system)}</desc>
        {scene.tankWater.length > 0 && (
          <path d={d(scene.tankWater)} fill="var(--color-primary)" fillOpacity="0.13" />
        )}
        {scene.boxed && (
          <path
            d={d(scene.body)}
            fill="var(--color-base-100)"
            stroke="var(--color-base-content)"
            strokeWidth="2.4"
            strokeLinejoin="round"
          />
        )}
        {scene.chambers.map((c) => (
          <g
            key={c.chamber.id}
            role="button"
            tabIndex={onSelect ? 0 : -1}
            aria-pressed={c.chamber.id === selected}
            aria-label={`${c.chamber.name}: ${said(litres(c.chamber), 'volume', system)}, ${LITRE_WORDS[c.chamber.use]}${c.chamber.measured ? '' : ', not measured yet'}${bad.has(c.chamber.id) ? ', does not fit' : ''}`}
            className="cursor-pointer outline-offset-2"
            onClick={() => onSelect?.(c.chamber.id)}
            onKeyDown={(e) => {
              if (e.key !== 'Enter' && e.key !== ' ') return
              e.preventDefault()
              onSelect?.(c.chamber.id)
            }}
          >
            <path d={d(c.outline)} fill="var(--color-base-100)" />
            <path
              d={d(c.outline)}
              fill={`url(#${id}-${c.chamber.use})`}
              stroke={bad.has(c.chamber.id) ? 'var(--color-error)' : 'var(--color-base-content)'}
              strokeWidth={c.chamber.id === selected ? 3 : 1.2}
              strokeDasharray={c.chamber.measured ? undefined : '5 3'}
            />
            {c.wasted.length > 0 && <path d={d(c.wasted)} fill="var(--color-base-100)" />}
            {c.wasted.length > 0 && <path d={d(c.wasted)} fill={`url(#${id}-wasted)`} />}
          </g>
        ))}
        {scene.strokes.map((s, i) => (
          <Stroke key={i} stroke={s} d={d(s.points, false)} scale={scale} />
        ))}
        {scene.paths.map((points, i) => (
          <WaterPath key={i} points={points.map((p) => [x(p[0]), y(p[1])] as const)} />
        ))}
        {scene.bubbles.map((b, i) => (
          <circle
            key={i}
            cx={x(b[0])}
            cy={y(b[1])}
            r={2 + (i % 3)}
            fill="var(--color-base-100)"
            stroke="var(--color-primary)"
            strokeWidth="1"
          />
        ))}
        {scene.impeller && (
          <Impeller
            at={[x(scene.impeller.at[0]), y(scene.impeller.at[1])]}
            r={scene.impeller.radius * scale}
          />
        )}
        {scene.chambers.map((c, i) => {
          const [cx, cy] = badgeAt(c, x, y)
          const ly = labels[i] ?? cy
          const chosen = c.chamber.id === selected
          return (
            <g key={c.chamber.id} pointerEvents="none">
              <circle
                cx={cx}
                cy={cy}
                r="9"
                fill={chosen ? 'var(--color-base-content)' : 'var(--color-base-100)'}
                stroke="var(--color-base-content)"
                strokeWidth="1"
              />
              <text
                x={cx}
                y={cy + 4.5}
                textAnchor="middle"
                fontSize="12.5"
                className="num"
                fill={chosen ? 'var(--color-base-100)' : 'var(--color-base-content)'}
              >
                {i + 1}
              </text>
              {!narrow && (
                <>
                  <text
                    x={labelX}
                    y={ly - 1}
                    fontSize="14"
                    fontWeight={chosen ? 700 : 400}
                    fill="var(--color-base-content)"
                  >
                    {i + 1} · {c.chamber.name}
                  </text>
                  <text
                    x={labelX}
                    y={ly + 13}
                    fontSize="12.5"
                    className="num"
                    fill={bad.has(c.chamber.id) ? 'var(--color-error)' : 'var(--color-secondary)'}
                  >
                    {said(litres(c.chamber), 'volume', system)}
                    {bad.has(c.chamber.id) ? ' · does not fit' : c.chamber.measured ? '' : ' · not measured'}
                  </text>
                </>
              )}
            </g>
          )
        })}
        {dims && (
          <Dimensions
            left={x(bounds.x0) - 18}
            body={body}
            x={x}
            y={y}
            chosen={chambers.find((c) => c.id === selected)}
            system={system}
          />
        )}
        <Bar scene={scene} scale={scale} x={margin} y={height - 14} system={system} />
      </svg>
      <div className="no-print flex flex-wrap gap-1">
        <button
          type="button"
          className="btn btn-ghost btn-xs"
          aria-pressed={dims}
          onClick={() => setDims(!dims)}
        >
          <Ruler size={14} aria-hidden="true" /> {dims ? 'Hide sizes' : 'Sizes'}
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-xs"
          onClick={() => download(root.current, name, 'svg')}
        >
          <Download size={14} aria-hidden="true" /> SVG
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-xs"
          onClick={() => download(root.current, name, 'png')}
        >
          <Download size={14} aria-hidden="true" /> PNG
        </button>
      </div>
      {narrow && (
        <ol className="mt-1 text-[0.92rem]">
          {chambers.map((c, i) => (
            <li key={c.id} className="rule-b flex justify-between gap-3 py-0.5">
              <span>
                <span className="num muted mr-2">{i + 1}</span>
                {c.name}
              </span>
              <span className="num">{said(litres(c), 'volume', system)}</span>
            </li>
          ))}
        </ol>
      )}
    </div>
  )
}

/** The number stands in the upper left corner of a chamber with room for it, in the middle of a narrow one. */
function badgeAt(
  c: SceneChamber,
  x: (v: number) => number,
  y: (v: number) => number,
): readonly [number, number] {
  const xs = c.outline.map((p) => x(p[0]))
  const ys = c.outline.map((p) => y(p[1]))
  const roomy = Math.max(...xs) - Math.min(...xs) > 56 && Math.max(...ys) - Math.min(...ys) > 34
  return roomy ? [Math.min(...xs) + 15, Math.min(...ys) + 15] : [x(c.centre[0]), y(c.centre[1])]
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
function Stroke({
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
function WaterPath({ points }: { readonly points: readonly (readonly [number, number])[] }) {
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

function Impeller({ at, r }: { readonly at: readonly [number, number]; readonly r: number }) {
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

function Bar({
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
  const length = scaleBar(scene.bounds.x1 - scene.bounds.x0)
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

interface DimensionsProps {
  readonly body: BodyRecord
  readonly left: number
  readonly x: (v: number) => number
  readonly y: (v: number) => number
  readonly chosen: Chamber | undefined
  readonly system: UnitSystem
}

/** Outside sizes, and the chosen chamber's, as dimension lines. */
function Dimensions({ body, left, x, y, chosen, system }: DimensionsProps) {
  const { outerWidth: w, outerHeight: h } = body
  const line = { stroke: 'var(--color-secondary)', strokeWidth: 1, fill: 'none' } as const
  const text = { fontSize: 12.5, className: 'num', fill: 'var(--color-base-content)' } as const
  const top = chosen && y(chosen.y + chosen.solid.height)
  const foot = chosen && y(chosen.y)
  return (
    <g pointerEvents="none">
      <path d={`M${x(0)} ${y(0) + 12}v10M${x(w)} ${y(0) + 12}v10M${x(0)} ${y(0) + 17}H${x(w)}`} {...line} />
      <text x={(x(0) + x(w)) / 2} y={y(0) + 31} textAnchor="middle" {...text}>
        {said(w, 'length', system)}
      </text>
      <path d={`M${left - 5} ${y(0)}h10M${left - 5} ${y(h)}h10M${left} ${y(0)}V${y(h)}`} {...line} />
      <text
        transform={`translate(${left - 6} ${(y(0) + y(h)) / 2}) rotate(-90)`}
        textAnchor="middle"
        {...text}
      >
        {said(h, 'length', system)}
      </text>
      {chosen && top !== undefined && foot !== undefined && (
        <>
          <path d={`M${x(w) + 4} ${foot}h8M${x(w) + 4} ${top}h8M${x(w) + 8} ${foot}V${top}`} {...line} />
          <text
            transform={`translate(${x(w) + 20} ${(foot + top) / 2}) rotate(-90)`}
            textAnchor="middle"
            {...text}
          >
            {said(chosen.solid.height, 'length', system)}
          </text>
        </>
      )}
    </g>
  )
}

/** What the drawing shows, for those who do not see it. */
function inWords(kind: FilterKind, chambers: readonly Chamber[], system: UnitSystem): string {
  const list = chambers.map(
    (c, i) => `${i + 1} ${c.name}, ${said(litres(c), 'volume', system)}, ${LITRE_WORDS[c.use]}`,
  )
  return `Section of a ${kind} filter. The water passes, in this order: ${list.join('; ')}.`
}

/** Saves the drawing as a file: SVG as it is, PNG at twice its size. */
function download(root: HTMLElement | null, name: string, as: 'svg' | 'png'): void {
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
