import type { Trial } from '@ypsometer/contract'
import { useState } from 'react'
import { changeRow } from '../../api/rows'
import { FigureView } from '../../figures/FigureView'
import { Num } from '../../figures/Num'
import { useDossierContext } from '../../frame/dossier'
import { KINDS } from '../../trials'
import { right, Sheet } from '../../figures/Sheet'

/** Points from which on they are drawn only once somebody opens the list. */
const MANY = 40

interface Props {
  /** The trial whose point is about to be taken out; its reason is asked for. */
  readonly asked: string | null
  readonly onAsk: (trialId: string | null) => void
}

/** The points of the pump's curve: which are in the fit, which are out and why. Nothing is deleted. */
export function CurvePoints({ asked, onAsk }: Props) {
  const { dossier, assessment } = useDossierContext()
  const [seen, setSeen] = useState(false)
  const curve = assessment?.pump?.curve
  if (!curve || curve.points.length + curve.out.length < 2) return null
  const rows = [...curve.points, ...curve.out].sort((a, b) => a.head - b.head)
  return (
    <details
      className="mt-2"
      open={asked !== null || curve.out.length > 0 || undefined}
      onToggle={(e) => e.currentTarget.open && setSeen(true)}
    >
      <summary className="cursor-pointer font-medium">
        Points of the curve: {curve.points.length} in the fit
        {curve.out.length > 0 && `, ${curve.out.length} excluded`}
      </summary>
      <Sheet
        className="mt-1"
        columns={[right('Head'), right('Flow'), { label: 'By', className: 'pl-6' }, 'In the fit']}
      >
        {(seen || rows.length <= MANY ? rows : []).map((p) => {
          const trial = dossier.trials.find((t) => t.id === p.trialId)
          const figure = assessment.trials.find((t) => t.trial.id === p.trialId)?.figure
          if (!trial) return null
          return (
            <tr key={p.trialId}>
              <td className="r" data-plain>
                <Num si={p.head} dimension="head" digits={3} />
              </td>
              <td className="r">
                {figure ? <FigureView figure={figure} inline /> : <span className="muted">none</span>}
              </td>
              <td className="muted pl-6">{KINDS[trial.kind].short}</td>
              <td>
                {trial.outReason !== null ? (
                  <>
                    out: {trial.outReason}{' '}
                    <button
                      type="button"
                      className="btn btn-xs"
                      onClick={() => changeRow('trials', trial, { outReason: null })}
                    >
                      Include again
                    </button>
                  </>
                ) : asked === p.trialId ? (
                  <Why trial={trial} onDone={() => onAsk(null)} />
                ) : (
                  <>
                    in{' '}
                    <button type="button" className="btn btn-ghost btn-xs" onClick={() => onAsk(p.trialId)}>
                      Exclude …
                    </button>
                  </>
                )}
              </td>
            </tr>
          )
        })}
      </Sheet>
    </details>
  )
}

function Why({ trial, onDone }: { readonly trial: Trial; readonly onDone: () => void }) {
  const [reason, setReason] = useState('')
  const [error, setError] = useState('')
  return (
    <form
      className="flex flex-wrap items-center gap-2"
      onSubmit={(e) => {
        e.preventDefault()
        if (!reason.trim()) return setError('A reason is needed: it stays in the record.')
        changeRow('trials', trial, { outReason: reason.trim() })
        onDone()
      }}
    >
      <input
        className="field !w-56"
        autoFocus
        aria-label="Why is it excluded?"
        aria-invalid={error ? true : undefined}
        placeholder="why? e.g. hose kinked"
        maxLength={200}
        value={reason}
        onChange={(e) => setReason(e.target.value)}
        onKeyDown={(e) => e.key === 'Escape' && onDone()}
      />
      <button type="submit" className="btn btn-sm btn-primary">
        Exclude
      </button>
      <button type="button" className="btn btn-sm btn-ghost" onClick={onDone}>
        Cancel
      </button>
      {error && (
        <p role="alert" className="text-error text-[0.85rem]">
          {error}
        </p>
      )}
    </form>
  )
}
