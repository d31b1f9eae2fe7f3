import type { PatchOf, Reading, Trial } from '@ypsometer/contract'
import { X } from 'lucide-react'
import type { ReactNode } from 'react'
import { createRow } from '../../api/rows'
import { removeRow } from '../../frame/removed'

/** Keeps a reading of a trial; the kind goes with it. */
export const keepReading = (trial: Trial, body: PatchOf<'readings'>): string =>
  createRow('readings', {
    trialId: trial.id,
    kind: trial.kind,
    takenAt: new Date().toISOString(),
    ...body,
  })

/** The readings of a trial, newest first, each with its way out. */
export function ReadingList({
  readings,
  label = 'Readings, newest first',
  children,
}: {
  readonly readings: readonly Reading[]
  readonly label?: string
  readonly children: (r: Reading, i: number) => ReactNode
}) {
  return (
    <ol className="rule-t" aria-label={label}>
      {readings
        .map((r, i) => (
          <li key={r.id} className="rule-b num flex items-center justify-between gap-3 text-[1.1rem]">
            <span className="muted w-8 shrink-0">{i + 1}</span>
            {children(r, i)}
            <button
              type="button"
              className="btn btn-ghost h-12 w-12 shrink-0 p-0"
              aria-label={`Take out reading ${i + 1}`}
              onClick={() => removeRow('readings', r, `Reading ${i + 1}`)}
            >
              <X size={18} aria-hidden="true" />
            </button>
          </li>
        ))
        .reverse()}
    </ol>
  )
}
