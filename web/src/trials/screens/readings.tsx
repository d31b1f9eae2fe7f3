import type { PatchOf, Reading, Trial } from '@ypsometer/contract'
import { USUAL_SETUP } from '@ypsometer/core/trials/common'
import type { TrialFinding } from '@ypsometer/core/trials/findings'
import { X } from 'lucide-react'
import type { ReactNode } from 'react'
import { createRow } from '../../api/rows'
import { Words } from '../../figures/Words'
import { removeRow } from '../../frame/removed'
import { useTrialView } from '../view'

/** Keeps a reading of a trial; the kind goes with it. */
export const keepReading = (trial: Trial, body: PatchOf<'readings'>): string =>
  createRow('readings', {
    trialId: trial.id,
    kind: trial.kind,
    takenAt: new Date().toISOString(),
    ...body,
  })

/** Pulses per m³ of the meter a trial is taken with. */
export const kFactorOf = (trial: Pick<Trial, 'setup'>): number => trial.setup.kFactor ?? USUAL_SETUP.kFactor

/** Findings of a trial’s readings; until there are any, how they are taken. */
export function ResultWords({ finding }: { readonly finding: TrialFinding | null }) {
  const { how } = useTrialView()
  if (!finding) return <p className="text-[1.05rem]">{how}</p>
  return finding.sentences.map((s, i) => (
    <p key={i} className="mt-1">
      <Words sentence={s} />
    </p>
  ))
}

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
              aria-label={`Remove reading ${i + 1}`}
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
