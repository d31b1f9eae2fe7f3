import { chanceFigure, checkCaution, type Suspect } from '@ypsometer/core/hands/faults'
import type { Symptom } from '@ypsometer/core/hands/vocabulary'
import { lowerFirst } from '@ypsometer/core/figures/figure'
import { useState } from 'react'
import { FigureView } from '../../figures/FigureView'
import { Words } from '../../figures/Words'
import { CautionNote } from '../../frame/CautionNote'
import { showDay } from '../../settings/when'
import type { Fault } from './useFault'

/** Cause that the record makes most likely before anybody has looked. */
export const RecordAlone = ({
  suspect,
  symptom,
}: {
  readonly suspect: Suspect
  readonly symptom: Symptom
}) => (
  <section aria-labelledby="alone-title" className="border-primary border-l-4 pl-3">
    <p className="kicker" id="alone-title">
      By the record alone
    </p>
    <p className="text-[1.15rem] font-bold">
      {suspect.check.cause}{' '}
      <span className="font-normal">
        <FigureView figure={chanceFigure(suspect, symptom)} inline />
      </span>
    </p>
    <Evidence suspect={suspect} />
  </section>
)

/** Evidence of the record for or against a cause. */
const Evidence = ({ suspect }: { readonly suspect: Suspect }) => (
  <ul className="text-[0.95rem]">
    {suspect.evidence.map((e, i) => (
      <li key={i}>
        <span className="muted">
          {e.times > 1 ? 'for' : 'against'}, {withDays(e.from)}:
        </span>{' '}
        <Words sentence={e.says} />
      </li>
    ))}
  </ul>
)

interface Props {
  readonly fault: Fault
  /** One that was chosen from the list instead of the next. */
  readonly picked: Suspect | null
  readonly onDone: () => void
}

/** The next thing to do: a check, a remedy, or where it ends. */
export function NextCard({ fault, picked, onDone }: Props) {
  const { found, row } = fault
  if (!found) return null
  const { next } = found
  if (!picked && next.what === 'licensed')
    return (
      <section aria-labelledby="next-title" className="border-error border-l-4 pl-3">
        <h2 id="next-title">Take it to someone licensed</h2>
        <p className="mt-1 text-[1.05rem]">{next.says}</p>
      </section>
    )
  if (!picked && next.what === 'cured')
    return (
      <section aria-labelledby="next-title" className="border-base-content border-l-4 pl-3">
        <p className="kicker">Found and cured</p>
        <h2 id="next-title">{next.suspect.check.cause}</h2>
        <p className="mt-1 text-[1.05rem]">{next.suspect.check.remedy}</p>
        {row?.seen[next.suspect.check.id] && <p className="mt-1">{row.seen[next.suspect.check.id]}</p>}
        <button
          type="button"
          className="btn btn-sm mt-3"
          onClick={() => fault.answer(next.suspect.check.id, null)}
        >
          Take that back
        </button>
      </section>
    )
  if (next.what === 'licensed' && !picked) return null
  const suspect = picked ?? ('suspect' in next ? next.suspect : null)
  if (!suspect) return null
  return suspect.outcome === 'found' ? (
    <Remedy key={suspect.check.id} fault={fault} suspect={suspect} onDone={onDone} />
  ) : (
    <Check
      key={suspect.check.id}
      fault={fault}
      suspect={suspect}
      again={next.what === 'check' && next.again}
      onDone={onDone}
    />
  )
}

interface StepProps {
  readonly fault: Fault
  readonly suspect: Suspect
  readonly onDone: () => void
}

const SEEN_MAX = 400

function Check({ fault, suspect, again, onDone }: StepProps & { readonly again: boolean }) {
  const { check } = suspect
  const [seen, setSeen] = useState(fault.row?.seen[check.id] ?? '')
  const caution = checkCaution(check, fault.subject.kind)
  const say = (outcome: 'clear' | 'unsure' | 'found'): void => {
    fault.answer(check.id, outcome, seen)
    onDone()
  }
  return (
    <section aria-labelledby="next-title">
      <p className="kicker">
        {again ? 'Check again' : 'Next check'} (about {minutes(check.minutes)})
      </p>
      <h2 id="next-title" className="!text-[1.5rem] !leading-snug">
        {check.cause}
      </h2>
      {caution && <CautionNote>{caution}</CautionNote>}
      <dl className="mt-3 grid grid-cols-[4.5rem_minmax(0,1fr)] gap-x-3 gap-y-1.5">
        <dt className="kicker pt-0.5">How to check</dt>
        <dd className="text-[1.1rem]">{check.how}</dd>
        <dt className="kicker pt-0.5">You will see</dt>
        <dd>{check.shows}</dd>
        <dt className="kicker pt-0.5">Why</dt>
        <dd className="muted">{check.why}</dd>
        {suspect.evidence.length > 0 && (
          <>
            <dt className="kicker pt-0.5">Your records</dt>
            <dd>
              <Evidence suspect={suspect} />
            </dd>
          </>
        )}
      </dl>
      {check.licensed && <p className="text-error mt-2 font-medium">{check.remedy}</p>}
      <label className="mt-3 block">
        <span className="kicker">What you saw</span>
        <input
          className="field !min-h-12"
          value={seen}
          maxLength={SEEN_MAX}
          onChange={(e) => setSeen(e.target.value)}
          onBlur={() =>
            suspect.outcome &&
            seen !== (fault.row?.seen[check.id] ?? '') &&
            fault.answer(check.id, suspect.outcome, seen)
          }
        />
      </label>
      <div className="mt-3 grid grid-cols-2 gap-2">
        <button type="button" className="btn h-16 text-[1.1rem]" onClick={() => say('clear')}>
          Not the cause
        </button>
        <button type="button" className="btn btn-primary h-16 text-[1.1rem]" onClick={() => say('found')}>
          Found it
        </button>
        <button type="button" className="btn btn-ghost col-span-2 h-14" onClick={() => say('unsure')}>
          Not sure, next check
        </button>
      </div>
    </section>
  )
}

function Remedy({ fault, suspect, onDone }: StepProps) {
  const { check } = suspect
  const say = (outcome: 'cured' | 'remains' | null): void => {
    fault.answer(check.id, outcome)
    onDone()
  }
  const caution = checkCaution(check, fault.subject.kind)
  return (
    <section aria-labelledby="next-title">
      <p className="kicker">Found: {lowerFirst(check.cause)}</p>
      <h2 id="next-title" className={`!text-[1.4rem] !leading-snug ${check.licensed ? 'text-error' : ''}`}>
        {check.remedy}
      </h2>
      {caution && <CautionNote>{caution}</CautionNote>}
      <div className="mt-4 grid grid-cols-2 gap-2">
        <button type="button" className="btn h-16 text-[1.1rem]" onClick={() => say('remains')}>
          Not fixed
        </button>
        <button type="button" className="btn btn-primary h-16 text-[1.1rem]" onClick={() => say('cured')}>
          Fixed
        </button>
        <button type="button" className="btn btn-ghost col-span-2 h-14" onClick={() => say(null)}>
          Reopen: it was something else
        </button>
      </div>
    </section>
  )
}

/** Days as they are read. */
const withDays = (words: string): string => words.replace(/\d{4}-\d\d-\d\d/g, showDay)

const minutes = (m: number): string => (m < 1 ? 'half a minute' : `${m} min`)
