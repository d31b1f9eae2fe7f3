import type { Hookup } from '@ypsometer/contract'
import type { Segment } from '@ypsometer/core/hydraulics/segments'
import { FITTING_IDS, FITTING_KINDS, HOSE_SIZES, HOSE_WALLS } from '@ypsometer/core/hydraulics/tables'
import { ChevronDown, ChevronUp, X } from 'lucide-react'
import { IconButton } from '../../frame/IconButton'
import { changeRow } from '../../api/rows'
import { QuantityInput } from '../../fields/QuantityInput'
import { fittingPiece, hosePiece, sprayBarPiece } from '@ypsometer/core/kinds/starters'
import { newId } from './newId'
import { Sheet } from '../../figures/Sheet'

/** Every piece of the run in flow order, from intake to outlet. */
export function SegmentTable({ hookup }: { readonly hookup: Hookup }) {
  const { segments } = hookup
  const write = (next: readonly Segment[]): void => changeRow('hookups', hookup, { segments: next })
  const set = (i: number, change: Partial<Segment>): void =>
    write(segments.map((s, j) => (j === i ? ({ ...s, ...change } as Segment) : s)))
  const move = (i: number, by: number): void => {
    const next = [...segments]
    const [piece] = next.splice(i, 1)
    if (piece) next.splice(i + by, 0, piece)
    write(next)
  }
  const bore = segments.find((s) => s.kind !== 'spray-bar')?.diameter ?? 0.016
  const add = (what: string): void => {
    const fitting = FITTING_IDS.find((id) => id === what)
    if (what === 'hose') write([...segments, hosePiece(newId('hose'), 'Hose', 1, bore)])
    else if (what === 'spray-bar') write([...segments, sprayBarPiece(newId('bar'))])
    else if (fitting) write([...segments, fittingPiece(newId(fitting), fitting, bore)])
  }
  return (
    <div className="min-w-0">
      <div className="overflow-x-auto">
        <Sheet
          className="min-w-[36rem]"
          columns={[
            'Piece, in flow order',
            { label: 'Size', className: 'w-[22%]' },
            { label: 'Bore', className: 'w-[17%]' },
            { label: 'Wall, or K', className: 'w-[18%]' },
            { label: <span className="sr-only">Move, remove</span>, className: 'w-28' },
          ]}
        >
          {segments.map((s, i) => (
            <tr key={s.id}>
              <td>
                <input
                  className="field"
                  aria-label={`Name of piece ${i + 1}`}
                  defaultValue={s.label}
                  key={s.label}
                  maxLength={80}
                  onBlur={(e) =>
                    e.target.value.trim() &&
                    e.target.value !== s.label &&
                    set(i, { label: e.target.value.trim() })
                  }
                />
                {s.kind === 'hose' && (
                  <label className="muted mt-1 flex items-center gap-1.5 text-[0.85rem]">
                    <input
                      type="checkbox"
                      className="checkbox size-6"
                      checked={s.clear ?? false}
                      onChange={(e) => set(i, { clear: e.target.checked })}
                    />
                    clear
                  </label>
                )}
                {s.kind === 'fitting' && (
                  <select
                    className="field muted !min-h-7 text-[0.85rem]"
                    aria-label={`What piece ${i + 1} is`}
                    value={s.catalogue ?? ''}
                    onChange={(e) =>
                      set(i, { catalogue: FITTING_IDS.find((id) => id === e.target.value) ?? null })
                    }
                  >
                    <option value="">not said what it is</option>
                    {FITTING_KINDS.map((f) => (
                      <option key={f.id} value={f.id}>
                        {f.label}
                      </option>
                    ))}
                  </select>
                )}
              </td>
              <PieceCells segment={s} index={i} set={(c) => set(i, c)} />
              <td className="whitespace-nowrap">
                <IconButton
                  label={`Move ${s.label} up`}
                  icon={ChevronUp}
                  disabled={i === 0}
                  onClick={() => move(i, -1)}
                />
                <IconButton
                  label={`Move ${s.label} down`}
                  icon={ChevronDown}
                  disabled={i === segments.length - 1}
                  onClick={() => move(i, 1)}
                />
                <IconButton
                  label={`Remove ${s.label}`}
                  icon={X}
                  onClick={() => write(segments.filter((_, j) => j !== i))}
                />
              </td>
            </tr>
          ))}
        </Sheet>
      </div>
      <label className="mt-2 inline-flex items-baseline gap-2">
        <span className="kicker">Add</span>
        <select className="field !w-auto" value="" onChange={(e) => add(e.target.value)}>
          <option value="">a piece …</option>
          <option value="hose">Hose or tube</option>
          {FITTING_KINDS.map((f) => (
            <option key={f.id} value={f.id}>
              {f.label} (K {f.lossCoefficient})
            </option>
          ))}
          <option value="spray-bar">Spray bar</option>
        </select>
      </label>
      <p className="muted mt-1 text-[0.85rem]">
        K: velocity heads lost, from Crane TP-410 and Idelchik (from memory) or common practice. The
        calculated flow assumes ±15 %.
      </p>
    </div>
  )
}

function PieceCells({
  segment: s,
  index,
  set,
}: {
  readonly segment: Segment
  readonly index: number
  readonly set: (change: Partial<Segment>) => void
}) {
  const n = index + 1
  if (s.kind === 'spray-bar')
    return (
      <>
        <td>
          <QuantityInput
            label={`Holes of piece ${n}`}
            si={s.holes}
            dimension="ratio"
            min={1}
            max={500}
            whole
            onCommit={(holes) => set({ holes })}
          />
        </td>
        <td>
          <QuantityInput
            label={`Hole bore of piece ${n}`}
            si={s.holeDiameter}
            dimension="length"
            unit="mm"
            min={0.0005}
            max={0.05}
            onCommit={(holeDiameter) => set({ holeDiameter })}
          />
        </td>
        <td className="muted pt-3 text-[0.9rem]">holes, C 0.62</td>
      </>
    )
  return (
    <>
      <td>
        {s.kind === 'hose' ? (
          <QuantityInput
            label={`Length of piece ${n}`}
            si={s.length}
            dimension="head"
            min={0}
            max={100}
            onCommit={(length) => set({ length })}
          />
        ) : (
          <QuantityInput
            label={`How many of piece ${n}`}
            si={s.count}
            dimension="ratio"
            min={0}
            max={100}
            whole
            onCommit={(count) => set({ count })}
          />
        )}
      </td>
      <td>
        <QuantityInput
          label={`Bore of piece ${n}`}
          si={s.diameter}
          dimension="length"
          unit="mm"
          min={0.002}
          max={0.2}
          onCommit={(diameter) => set({ diameter })}
        />
        {s.kind === 'hose' && (
          <span className="muted text-[0.8rem]">
            {HOSE_SIZES.find((h) => Math.abs(h.inner - s.diameter) < 1e-6)?.id}
          </span>
        )}
      </td>
      <td>
        {s.kind === 'hose' ? (
          <select
            className="field"
            aria-label={`Wall of piece ${n}`}
            value={HOSE_WALLS.find((w) => Math.abs(w.roughness - s.roughness) < 1e-9)?.id ?? ''}
            onChange={(e) =>
              set({ roughness: HOSE_WALLS.find((w) => w.id === e.target.value)?.roughness ?? s.roughness })
            }
          >
            {HOSE_WALLS.map((w) => (
              <option key={w.id} value={w.id}>
                {w.label}
              </option>
            ))}
          </select>
        ) : (
          <QuantityInput
            label={`K of piece ${n}`}
            si={s.lossCoefficient}
            dimension="ratio"
            min={0}
            max={1e6}
            onCommit={(lossCoefficient) => set({ lossCoefficient })}
          />
        )}
      </td>
    </>
  )
}
