import { useState } from 'react'

interface Props {
  /** Where the point lies in the chart (px), and what it stands for. */
  readonly cx: number
  readonly cy: number
  readonly payload: { readonly trialId: string; readonly flow: number; readonly head: number }
  readonly out?: boolean
  readonly onMove: ((trialId: string) => void) | undefined
}

/** How far (px) a point has to be drawn off before it counts. */
const FAR = 26

/**
 * A measured point, drawn as the plumb weight that marks measured numbers. Drawn away, it is taken out of the fit; one
 * that is out is put back by a click. Enter does both.
 */
export function Plumb({ cx, cy, payload, out, onMove }: Props) {
  const [from, setFrom] = useState<readonly [number, number] | null>(null)
  const [by, setBy] = useState<readonly [number, number]>([0, 0])
  const far = Math.hypot(...by) > FAR
  const drop = (): void => {
    setFrom(null)
    setBy([0, 0])
  }
  const act = (): void => onMove?.(payload.trialId)
  const d = `M${cx - 5} ${cy - 4}h10l-5 9z`
  if (!onMove)
    return <path d={d} fill="var(--color-base-100)" stroke="var(--color-primary)" strokeWidth={1.8} />
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={`Point at ${payload.flow.toFixed(0)} and ${payload.head.toFixed(2)}: ${out ? 'out of the fit, put it back' : 'in the fit; remove it'}`}
      className={out ? 'cursor-pointer' : 'cursor-grab'}
      style={{ touchAction: 'none' }}
      onKeyDown={(e) => {
        if (e.key !== 'Enter' && e.key !== ' ') return
        e.preventDefault()
        act()
      }}
      onClick={() => out && act()}
      onPointerDown={(e) => {
        if (out) return
        e.currentTarget.setPointerCapture(e.pointerId)
        setFrom([e.clientX, e.clientY])
      }}
      onPointerMove={(e) => from && setBy([e.clientX - from[0], e.clientY - from[1]])}
      onPointerUp={(e) => {
        // Where it is let go, not where it was last drawn: a busy page draws late.
        if (from && Math.hypot(e.clientX - from[0], e.clientY - from[1]) > FAR) act()
        drop()
      }}
      onPointerCancel={drop}
    >
      <circle cx={cx} cy={cy} r={14} fill="transparent" />
      <path
        d={d}
        transform={`translate(${by[0]} ${by[1]})`}
        fill={out ? 'none' : 'var(--color-base-100)'}
        stroke={out || far ? 'var(--color-secondary)' : 'var(--color-primary)'}
        strokeWidth={1.8}
        strokeDasharray={out || far ? '2 2' : undefined}
      />
    </g>
  )
}
