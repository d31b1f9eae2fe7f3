import type { BodyRecord, Chamber } from '@ypsometer/core/volumes/interior'
import type { FilterKind } from '@ypsometer/core/kinds/filters'
import { useId, useMemo, type ReactNode, type Ref, type RefObject } from 'react'
import { useWidth } from '../charts/useWidth'
import { Impeller } from './parts'
import { buildScene } from './scene'
import type { Point, Scene } from './shapes'

interface FrameInput {
  readonly kind: FilterKind
  readonly body: BodyRecord
  readonly chambers: readonly Chamber[]
  readonly root: RefObject<HTMLElement | null>
  /** Room for names at the right (px), given up when the whole is narrower than `narrowBelow`. */
  readonly labels: number
  readonly narrowBelow: number
  readonly maxHeight: number
  readonly margin: number
  /** Pixels to a metre, where several are drawn at one scale; else as large as there is room. */
  readonly perMetre?: number | undefined
}

/** How metres of the section become pixels of the drawing, and the scene in it. */
export interface Frame {
  readonly id: string
  readonly scene: Scene
  readonly narrow: boolean
  readonly width: number
  readonly height: number
  readonly scale: number
  readonly margin: number
  readonly left: number
  /** Pixels the scene takes across. */
  readonly drawn: number
  readonly x: (v: number) => number
  readonly y: (v: number) => number
  readonly d: (points: readonly Point[], close?: boolean) => string
}

/** Fits the scene of a body into the width there is. */
export function useFrame({
  kind,
  body,
  chambers,
  root,
  labels,
  narrowBelow,
  maxHeight,
  margin,
  perMetre,
}: FrameInput): Frame {
  const id = useId().replace(/[^\w-]/g, '')
  const width = useWidth(root, 520)
  const narrow = width < narrowBelow
  const scene = useMemo(() => buildScene(kind, body, chambers), [kind, body, chambers])
  const { bounds } = scene
  const room = width - (narrow ? 0 : labels) - 2 * margin
  const scale = perMetre ?? Math.min(room / (bounds.x1 - bounds.x0), maxHeight / (bounds.y1 - bounds.y0))
  const drawn = (bounds.x1 - bounds.x0) * scale
  const left = margin + Math.max(0, (room - drawn) / 2)
  const x = (v: number): number => left + (v - bounds.x0) * scale
  const y = (v: number): number => margin + (bounds.y1 - v) * scale
  return {
    id,
    scene,
    narrow,
    width,
    height: (bounds.y1 - bounds.y0) * scale + 2 * margin + 26,
    scale,
    margin,
    left,
    drawn,
    x,
    y,
    d: (points, close = true) =>
      points.map((p, i) => `${i ? 'L' : 'M'}${x(p[0]).toFixed(1)} ${y(p[1]).toFixed(1)}`).join('') +
      (close ? 'Z' : ''),
  }
}

interface SectionProps {
  readonly frame: Frame
  readonly label: string
  readonly svg?: Ref<SVGSVGElement>
  readonly children: ReactNode
}

/** The sheet a section is drawn on, with the tank’s water and the body’s box behind what stands in it. */
export const Section = ({ frame: { scene, width, height, d }, label, svg, children }: SectionProps) => (
  <svg
    ref={svg}
    data-drawing
    viewBox={`0 0 ${width} ${height}`}
    width={width}
    height={height}
    className="block max-w-full"
    role="group"
    aria-label={label}
    fontFamily="var(--font-sans)"
  >
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
    {children}
  </svg>
)

/** Bubbles of an airlift and the impeller of a pump, on top of all. */
export const Machinery = ({ frame: { scene, scale, x, y } }: { readonly frame: Frame }) => (
  <>
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
      <Impeller at={[x(scene.impeller.at[0]), y(scene.impeller.at[1])]} r={scene.impeller.radius * scale} />
    )}
  </>
)
