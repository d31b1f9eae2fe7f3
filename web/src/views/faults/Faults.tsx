import type { Tank } from '@ypsometer/contract'
import { FILTER_KINDS } from '@ypsometer/core/kinds/filters'
import { CAUTIONS } from '@ypsometer/core/teardown/cautions'
import { SYMPTOM_WORDS, SYMPTOMS } from '@ypsometer/core/hands/vocabulary'
import type { Suspect } from '@ypsometer/core/hands/faults'
import { TriangleAlert, Trash2 } from 'lucide-react'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { useCandidates } from '../../api/shelf'
import { useTanks } from '../../api/lists'
import { Key, KeyGroup } from '../../fields/Keys'
import { Parked } from '../../fields/Parked'
import { TextField } from '../../fields/fields'
import { IconButton } from '../../frame/IconButton'
import { removeRow } from '../../frame/removed'
import { showDay } from '../../settings/when'
import { KIND_WORDS } from '../../words'
import { NextCard, RecordAlone } from './NextCard'
import { Suspects } from './Suspects'
import { causeOf } from './words'
import { useFault, type Fault } from './useFault'
import { Heading } from '../../frame/Heading'

/** Fault finder: symptom, then checks in the order that finds it soonest. */
export function Faults() {
  const { id } = useParams()
  const fault = useFault(id)
  const [picked, setPicked] = useState<string | null>(null)
  const { subject, row, found, name, tank } = fault
  if (fault.gone) return <p>This search is not here. It may have been deleted.</p>
  return (
    <>
      <div className="flex flex-wrap items-end justify-between gap-3">
        <div>
          <Heading>{subject.symptom ? SYMPTOM_WORDS[subject.symptom].name : 'Fault finder'}</Heading>
          <p className="muted max-w-2xl">
            {row
              ? `${name}${tank ? `, ${tank.name}` : ''} · ${showDay(row.on)}`
              : 'Choose the filter and the symptom. You get the quickest useful check first.'}
          </p>
        </div>
        {(row || subject.symptom) && (
          <Link to="/faults" className="btn btn-sm" onClick={() => setPicked(null)}>
            New case
          </Link>
        )}
      </div>
      {!row && <Ask fault={fault} />}
      {row && <Parked row={row} field="outcomes" what="What was found" />}
      {found && subject.symptom ? (
        <div className="mt-5 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-7 lg:grid-cols-[minmax(0,1.05fr)_minmax(0,1fr)]">
          <div className="min-w-0 space-y-5">
            {fault.failure && <p role="alert">The record cannot be read. {fault.failure}</p>}
            {found.recordAlone && <RecordAlone suspect={found.recordAlone} symptom={subject.symptom} />}
            <NextCard
              fault={fault}
              picked={pickedOf(found.suspects, picked)}
              onDone={() => setPicked(null)}
            />
            <p className="flex gap-2 text-[0.92rem]">
              <TriangleAlert size={17} className="text-warning mt-0.5 shrink-0" aria-hidden="true" />
              <span>{CAUTIONS.electrician}</span>
            </p>
          </div>
          <div className="min-w-0">
            <Suspects found={found} symptom={subject.symptom} picked={picked} onPick={setPicked} />
            {row && (
              <div className="mt-5">
                <TextField
                  collection="fault-searches"
                  row={row}
                  field="note"
                  label="In your own words"
                  lines={2}
                />
              </div>
            )}
          </div>
        </div>
      ) : null}
      <Earlier fault={fault} />
    </>
  )
}

const pickedOf = (all: readonly Suspect[], id: string | null): Suspect | null =>
  all.find((s) => s.check.id === id) ?? null

const ANY = 'any'

/** Which filter, and what is wrong with it. */
function Ask({ fault: { subject, choose } }: { readonly fault: Fault }) {
  const { data: candidates = [] } = useCandidates()
  const { tanks = [] } = useTanks()
  const shelf = candidates
    .flatMap((c) => (c.candidate ? [c.candidate] : []))
    .sort((a, b) => a.name.localeCompare(b.name))
  const nameOf = (f: Tank['filters'][number]): string =>
    shelf.find((c) => c.id === f.modelId)?.name ?? (f.label || 'a filter without a name')
  const pick = (value: string): void => {
    const [what = '', first = '', second = ''] = value.split('|')
    if (what === 'model') return choose({ model: first, kind: '', tank: '', label: '' })
    if (what === 'kind') return choose({ model: '', kind: first === ANY ? '' : first, tank: '', label: '' })
    const tank = tanks.find((t) => t.id === first)
    const filter = tank?.filters.find((f) => f.id === second)
    if (filter)
      choose({ model: filter.modelId ?? '', kind: filter.kind ?? '', tank: first, label: filter.label })
  }
  const onTank = tanks
    .find((t) => t.id === subject.tankId)
    ?.filters.find((f) => f.modelId === subject.modelId && (f.modelId !== null || f.kind === subject.kind))
  const value = onTank
    ? `tank|${subject.tankId}|${onTank.id}`
    : subject.modelId
      ? `model|${subject.modelId}`
      : `kind|${subject.kind ?? ANY}`
  return (
    <div className="mt-4 grid gap-x-10 gap-y-4 lg:grid-cols-[22rem_minmax(0,1fr)]">
      <label className="block">
        <span className="kicker">Which filter</span>
        <select className="field !min-h-12" value={value} onChange={(e) => pick(e.target.value)}>
          <optgroup label="By its kind">
            <option value={`kind|${ANY}`}>Unknown type</option>
            {FILTER_KINDS.map((k) => (
              <option key={k} value={`kind|${k}`}>
                {KIND_WORDS[k]}
              </option>
            ))}
          </optgroup>
          {tanks
            .filter((t) => t.filters.length)
            .map((t) => (
              <optgroup key={t.id} label={t.name}>
                {t.filters.map((f) => (
                  <option key={f.id} value={`tank|${t.id}|${f.id}`}>
                    {nameOf(f)}
                  </option>
                ))}
              </optgroup>
            ))}
          <optgroup label="Your filters">
            {shelf.map((c) => (
              <option key={c.id} value={`model|${c.id}`}>
                {c.name}, {c.maker}
              </option>
            ))}
          </optgroup>
        </select>
      </label>
      <div>
        <KeyGroup name="What is wrong">
          {SYMPTOMS.map((s) => (
            <Key key={s} on={subject.symptom === s} onTap={() => choose({ symptom: s })}>
              {SYMPTOM_WORDS[s].name}
            </Key>
          ))}
        </KeyGroup>
        {subject.symptom && <p className="mt-2">Ask first: {SYMPTOM_WORDS[subject.symptom].asks}</p>}
      </div>
    </div>
  )
}

const SHOWN = 12

/** Searches there were, the newest first. */
function Earlier({ fault: { searches, row, nameOf } }: { readonly fault: Fault }) {
  const [all, setAll] = useState(false)
  const { tanks = [] } = useTanks()
  const others = [...searches]
    .filter((s) => s !== row)
    .sort((a, b) => b.on.localeCompare(a.on) || b.createdAt.localeCompare(a.createdAt))
  if (!others.length) return null
  return (
    <section aria-labelledby="earlier-title" className="mt-9">
      <h2 id="earlier-title">Troubleshooting cases</h2>
      <ul className="rule-t mt-1">
        {others.slice(0, all ? undefined : SHOWN).map((s) => {
          const cured = Object.entries(s.outcomes).find(([, o]) => o === 'cured' || o === 'found')
          return (
            <li key={s.id} className="rule-b flex items-baseline justify-between gap-3 py-1.5">
              <span className="min-w-0">
                <Link to={`/faults/${s.id}`} className="link">
                  {SYMPTOM_WORDS[s.symptom].name}
                </Link>
                {' · '}
                {nameOf(s)}
                {s.tankId && `, ${tanks.find((t) => t.id === s.tankId)?.name ?? 'a tank that is gone'}`}
                <span className="muted block text-[0.88rem]">
                  {showDay(s.on)} ·{' '}
                  {cured
                    ? outcomeWords(cured[0], cured[1])
                    : `${Object.keys(s.outcomes).length} looked at, still open`}
                </span>
              </span>
              <IconButton
                label={`Delete the search of ${showDay(s.on)}`}
                icon={Trash2}
                onClick={() => removeRow('fault-searches', s, `The search of ${showDay(s.on)}`)}
              />
            </li>
          )
        })}
      </ul>
      {others.length > SHOWN && !all && (
        <button type="button" className="btn btn-ghost btn-sm mt-2" onClick={() => setAll(true)}>
          All {others.length}
        </button>
      )}
    </section>
  )
}

const outcomeWords = (check: string, outcome: string): string =>
  `${outcome === 'cured' ? 'cured' : 'found'}: ${causeOf(check)}`
