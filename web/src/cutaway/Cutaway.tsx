import type { FilterKind } from '@ypsometer/core/kinds/filters'
import { solidVolume } from '@ypsometer/core/volumes/solids'
import type { BodyRecord, Chamber, InteriorProblem } from '@ypsometer/core/volumes/interior'
import type { UnitSystem } from '@ypsometer/core/units/dimensions'
import { Download, Ruler } from 'lucide-react'
import { useRef, useState, type Dispatch, type RefObject, type SetStateAction } from 'react'
import { spreadLabels } from '../charts/labels'
import { units } from '../settings/settings'
import { LITRE_WORDS, Patterns } from './patterns'
import { Bar, download, said, Stroke, WaterPath } from './parts'
import { Machinery, Section, useFrame } from './frame'
import type { Point, SceneChamber } from './shapes'

interface Props {
  readonly kind: FilterKind
  readonly name: string
  readonly body: BodyRecord
  readonly chambers: readonly Chamber[]
  readonly problems?: readonly InteriorProblem[]
  readonly selected?: string | null
  readonly onSelect?: (id: string) => void
  /** Pixels to a metre, where several stand side by side; then without names and tools. */
  readonly perMetre?: number
  /** Litres of chambers (m³) as they were worked out once, by their ids; else from their sizes. */
  readonly litresOf?: Readonly<Record<string, number>>
  /** Without scale tools and downloads: it is only looked at. */
  readonly plain?: boolean
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

/** The section drawing, to scale from the measured sizes alone. Chambers can be chosen by pointer and by keyboard. */
export function Cutaway({
  kind,
  name,
  body,
  chambers,
  problems = [],
  selected = null,
  onSelect,
  perMetre,
  litresOf,
  plain = false,
}: Props) {
  const system = units.use()
  const litresIn = (c: Chamber): number => litresOf?.[c.id] ?? litres(c)
  const root = useRef<HTMLDivElement>(null)
  const [dims, setDims] = useState(false)
  const frame = useFrame({
    kind,
    body,
    chambers,
    root,
    labels: perMetre ? 0 : LABELS,
    narrowBelow: NARROW,
    maxHeight: MAX_HEIGHT,
    margin: dims ? 46 : 10,
    perMetre,
  })
  const { id, scene, narrow, height, scale, margin, left, drawn, x, y, d } = frame
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
      <Section frame={frame} label={`Section of ${name}, to scale`}>
        <Patterns id={id} />
        <desc>{inWords(kind, chambers, system, litresIn)}</desc>
        {scene.chambers.map((c) => (
          <ChamberShape
            key={c.chamber.id}
            c={c}
            onSelect={onSelect}
            selected={selected}
            litresIn={litresIn}
            system={system}
            bad={bad}
            d={d}
            id={id}
          />
        ))}
        {scene.strokes.map((s, i) => (
          <Stroke key={i} stroke={s} d={d(s.points, false)} scale={scale} />
        ))}
        {scene.paths.map((points, i) => (
          <WaterPath key={i} points={points.map((p) => [x(p[0]), y(p[1])] as const)} />
        ))}
        <Machinery frame={frame} />
        {scene.chambers.map((c, i) => {
          const [cx, cy] = badgeAt(c, x, y)
          const ly = labels[i] ?? cy
          const chosen = c.chamber.id === selected
          return (
            <ChamberLabel
              key={c.chamber.id}
              c={c}
              cx={cx}
              cy={cy}
              chosen={chosen}
              i={i}
              narrow={narrow}
              labelX={labelX}
              ly={ly}
              bad={bad}
              litresIn={litresIn}
              system={system}
            />
          )
        })}
        {dims && (
          <Dimensions
            left={x(scene.bounds.x0) - 18}
            body={body}
            x={x}
            y={y}
            chosen={chambers.find((c) => c.id === selected)}
            system={system}
          />
        )}
        <Bar scene={scene} scale={scale} x={margin} y={height - 14} system={system} />
      </Section>
      {!plain && <DrawingTools dims={dims} setDims={setDims} root={root} name={name} />}
      {narrow && (
        <ol className="mt-1 text-[0.92rem]">
          {chambers.map((c, i) => (
            <li key={c.id} className="rule-b flex justify-between gap-3 py-0.5">
              <span>
                <span className="num muted mr-2">{i + 1}</span>
                {c.name}
              </span>
              <span className="num">{said(litresIn(c), 'volume', system)}</span>
            </li>
          ))}
        </ol>
      )}
    </div>
  )
}

/** Downloads of the drawing. */
function DrawingTools({
  dims,
  setDims,
  root,
  name,
}: {
  readonly dims: boolean
  readonly setDims: Dispatch<SetStateAction<boolean>>
  readonly root: RefObject<HTMLDivElement | null>
  readonly name: string
}) {
  return (
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
  )
}

/** A chamber’s name and litres beside the section. */
function ChamberLabel({
  c,
  cx,
  cy,
  chosen,
  i,
  narrow,
  labelX,
  ly,
  bad,
  litresIn,
  system,
}: {
  readonly c: SceneChamber
  readonly cx: number
  readonly cy: number
  readonly chosen: boolean
  readonly i: number
  readonly narrow: boolean
  readonly labelX: number
  readonly ly: number
  readonly bad: Set<string>
  readonly litresIn: (c: Chamber) => number
  readonly system: UnitSystem
}) {
  return (
    <g pointerEvents="none">
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
            {said(litresIn(c.chamber), 'volume', system)}
            {bad.has(c.chamber.id) ? ' · does not fit' : c.chamber.measured ? '' : ' · assumed'}
          </text>
        </>
      )}
    </g>
  )
}

/** A chamber of the section, which can be chosen. */
function ChamberShape({
  c,
  onSelect,
  selected,
  litresIn,
  system,
  bad,
  d,
  id,
}: {
  readonly c: SceneChamber
  readonly onSelect: ((id: string) => void) | undefined
  readonly selected: string | null
  readonly litresIn: (c: Chamber) => number
  readonly system: UnitSystem
  readonly bad: Set<string>
  readonly d: (points: readonly Point[], close?: boolean) => string
  readonly id: string
}) {
  return (
    <g
      role="button"
      tabIndex={onSelect ? 0 : -1}
      aria-pressed={c.chamber.id === selected}
      aria-label={`${c.chamber.name}: ${said(litresIn(c.chamber), 'volume', system)}, ${LITRE_WORDS[c.chamber.use]}${c.chamber.measured ? '' : ', typical size (assumed)'}${bad.has(c.chamber.id) ? ', does not fit' : ''}`}
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
      {!c.chamber.measured && <path d={d(c.outline)} fill={`url(#${id}-typical)`} />}
      {c.wasted.length > 0 && <path d={d(c.wasted)} fill="var(--color-base-100)" />}
      {c.wasted.length > 0 && <path d={d(c.wasted)} fill={`url(#${id}-wasted)`} />}
    </g>
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

/** Description of the drawing, for those who do not see it. */
function inWords(
  kind: FilterKind,
  chambers: readonly Chamber[],
  system: UnitSystem,
  litresIn: (c: Chamber) => number,
): string {
  const list = chambers.map(
    (c, i) => `${i + 1} ${c.name}, ${said(litresIn(c), 'volume', system)}, ${LITRE_WORDS[c.use]}`,
  )
  return `Section of a ${kind} filter. The water passes, in this order: ${list.join('; ')}.`
}
