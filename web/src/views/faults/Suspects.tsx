import { chanceFigure, type Search, type Suspect } from '@ypsometer/core/hands/faults'
import type { Symptom } from '@ypsometer/core/hands/vocabulary'
import { showPercent } from '@ypsometer/core/units/format'
import { FigureView } from '../../figures/FigureView'
import { OUTCOME_WORDS } from './words'
import { right, Sheet } from '../../figures/Sheet'

interface Props {
  readonly found: Search
  readonly symptom: Symptom
  readonly picked: string | null
  readonly onPick: (id: string) => void
}

/** Every cause in the order to look, with its chance; one can be chosen out of turn. */
export function Suspects({ found, symptom, picked, onPick }: Props) {
  const it = found.suspects.filter((s) => s.outcome === 'found' || s.outcome === 'cured')
  const open = found.suspects.filter((s) => s.outcome === null)
  const looked = found.suspects.filter((s) => s.outcome !== null && !it.includes(s))
  return (
    <section aria-labelledby="suspects-title">
      <h2 id="suspects-title">Possible causes, quickest finds first</h2>
      <p className="muted text-[0.92rem]">
        Sorted by chance per minute of work. Chances are rules of thumb, updated by your records.
      </p>
      <Sheet className="mt-2" columns={['Cause', right('Minutes'), right('Chance')]}>
        {[...it, ...open, ...looked].map((s) => (
          <Row
            key={s.check.id}
            suspect={s}
            symptom={symptom}
            picked={picked === s.check.id}
            onPick={onPick}
          />
        ))}
        <tr>
          <td className="muted">Other</td>
          <td />
          <td className="r num muted">{showPercent(found.none)}</td>
        </tr>
      </Sheet>
    </section>
  )
}

const TONES = {
  open: '',
  unsure: '',
  found: 'font-bold',
  cured: 'font-bold',
  clear: 'muted',
  remains: 'muted',
} as const

interface RowProps {
  readonly suspect: Suspect
  readonly symptom: Symptom
  readonly picked: boolean
  readonly onPick: (id: string) => void
}

function Row({ suspect: s, symptom, picked, onPick }: RowProps) {
  const said = s.evidence.filter((e) => e.times > 1).length
  return (
    <tr className={picked ? 'bg-base-200' : ''}>
      <td>
        <button
          type="button"
          aria-pressed={picked}
          className={`text-left hover:underline ${TONES[s.outcome ?? 'open']}`}
          onClick={() => onPick(s.check.id)}
        >
          {s.check.cause}
        </button>
        <span className="muted block text-[0.82rem]">
          {[
            s.outcome && OUTCOME_WORDS[s.outcome],
            s.first && !s.outcome && 'check first',
            said > 0 && `your records point to it`,
          ]
            .filter(Boolean)
            .join(' · ')}
        </span>
      </td>
      <td className="r num">{s.check.minutes}</td>
      <td className="r">
        {s.outcome !== 'found' && s.outcome !== 'cured' && (
          <FigureView figure={chanceFigure(s, symptom)} inline />
        )}
      </td>
    </tr>
  )
}
