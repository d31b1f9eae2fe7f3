import type { Outcome } from '@ypsometer/core/path/outcome'
import type { FindingSaid } from '../workers/pathWork'
import { chamberBox, layerBox } from './layers'

interface PinsProps {
  readonly findings: readonly FindingSaid[]
  readonly outcome: Outcome
  readonly x: (v: number) => number
  readonly y: (v: number) => number
  readonly onFinding?: (id: string) => void
}

/** Findings where they are: numbered as in the list, along the left edge of their layer or chamber. */
export function Pins({ findings, outcome, x, y, onFinding }: PinsProps) {
  const used = new Map<string, number>()
  return findings.map((f, i) => {
    const layer = outcome.layers.find((l) => l.placed.layer.id === f.layerId)
    const chamber = outcome.topology.chambers.find((c) => c.chamber.id === f.chamberId)
    const box = layer ? layerBox(layer.chamber, layer.placed) : chamber ? chamberBox(chamber) : null
    if (!box) return null
    const key = f.layerId ?? f.chamberId ?? ''
    const n = used.get(key) ?? 0
    used.set(key, n + 1)
    const grave = f.rule.severity === 'fault'
    const cx = x(box.x0) + 12 + n * 21
    const cy = y((box.y0 + box.y1) / 2)
    return (
      <g key={f.id} className="cursor-pointer" onClick={() => onFinding?.(f.id)} aria-hidden="true">
        <path
          d={`M${cx} ${cy - 11}L${cx + 11} ${cy}L${cx} ${cy + 11}L${cx - 11} ${cy}Z`}
          fill={
            grave
              ? 'var(--color-error)'
              : f.rule.severity === 'caution'
                ? 'var(--color-warning)'
                : 'var(--color-base-100)'
          }
          stroke="var(--color-base-content)"
          strokeWidth="1"
        />
        <text
          x={cx}
          y={cy + 4}
          textAnchor="middle"
          fontSize="11.5"
          className="num"
          fill={f.rule.severity === 'note' ? 'var(--color-base-content)' : 'var(--color-base-100)'}
        >
          {i + 1}
        </text>
      </g>
    )
  })
}
