import { errorMessage } from '../../api/errorMessage'
import type { Reading } from '@ypsometer/contract'
import { parseQuantity } from '@ypsometer/core/units/parse'
import { useState } from 'react'
import { removeRow } from '../../frame/removed'
import { Num } from '../../figures/Num'
import { units } from '../../settings/settings'
import { PRIME_WORDS, PRIMING_WORDS } from '../prime/words'
import { useFinding } from '../useFinding'
import type { ScreenProps } from '../kind'
import { keepReading, ReadingList, ResultWords } from './readings'
import { BigButton, Chips, SecondButton, Shell } from './Shell'
import { tick } from './useAwake'
import { useBenchKeys } from './useBenchKeys'
import { useStopwatch } from './useStopwatch'

type What = keyof typeof PRIME_WORDS
const TIMED: readonly What[] = ['prime', 'restart']
const ASKS: Readonly<Record<What, readonly [yes: string, no: string]>> = {
  prime: ['Full flow', 'It did not prime'],
  restart: ['Full flow again', 'It did not restart'],
  leak: ['It leaks', 'It is tight'],
  air: ['It draws air', 'No air'],
  rattle: ['It rattles', 'Quiet'],
}

/** Does it prime, restart, hold water, stay quiet: tries timed from the switch, and things seen. */
export function PrimeScreen({ dossier, trial, readings }: ScreenProps) {
  const { primedBy } = dossier.model
  const watch = useStopwatch(trial.id)
  const system = units.use()
  const [setup, setSetup] = useState(readings.length === 0 && !watch.running)
  const [what, setWhat] = useState<What>('prime')
  const [note, setNote] = useState('')
  const [amount, setAmount] = useState('')
  const [said, setSaid] = useState('')
  const finding = useFinding(dossier, trial)
  const timed = TIMED.includes(what)
  const keep = (outcome: 'yes' | 'no'): void => {
    let value: number | null = null
    if (what === 'leak' && amount.trim()) {
      try {
        value = parseQuantity(amount, { dimension: 'volume', system, bare: 'mL', field: 'Water caught' }).si
      } catch (e) {
        return setSaid(errorMessage(e))
      }
    }
    const seconds = timed ? Math.round(watch.end() * 10) / 10 : 0
    keepReading(trial, { series: what, outcome, seconds, note: note.trim(), value })
    tick()
    setNote('')
    setAmount('')
    setSaid(`${PRIME_WORDS[what]}: kept.`)
  }
  const undo = (): void => {
    const last = readings.at(-1)
    if (watch.running) {
      watch.end()
      setSaid('The running clock was dropped.')
    } else if (last) removeRow('readings', last, `Reading ${readings.length}`)
  }
  useBenchKeys({
    space: () => {
      if (setup) return
      if (!timed) keep('no')
      else if (watch.running) keep('yes')
      else watch.begin()
    },
    backspace: () => !setup && undo(),
  })
  const [yes, no] = ASKS[what]
  return (
    <Shell
      dossier={dossier}
      trial={trial}
      fresh={readings.length === 0 && !watch.running}
      onSetup={setSetup}
      status={watch.running && watch.found ? 'The clock kept on while the page was closed.' : said}
      undo={{
        label: watch.running ? 'Drop' : 'Undo',
        run: undo,
        off: !watch.running && !readings.length,
      }}
      lower={
        timed && !watch.running ? (
          <BigButton
            running={false}
            seconds={0}
            onPress={watch.begin}
            label={what === 'prime' ? 'Switched on: start' : 'Power back: start'}
          />
        ) : (
          <div className="flex h-[46dvh] min-h-56 flex-col gap-px">
            <BigButton
              running={timed}
              seconds={timed ? watch.seconds : null}
              onPress={() => keep(timed ? 'yes' : 'no')}
              label={timed ? yes : no}
              half
            />
            <SecondButton label={timed ? no : yes} onPress={() => keep(timed ? 'no' : 'yes')} />
          </div>
        )
      }
    >
      <Chips
        label="What is tried"
        options={Object.entries(PRIME_WORDS) as [What, string][]}
        value={what}
        onChange={(w) => {
          if (!watch.running) setWhat(w)
        }}
      />
      {primedBy && what === 'prime' && (
        <p className="muted">This model is primed {PRIMING_WORDS[primedBy]}.</p>
      )}
      <div className="grid gap-3 sm:grid-cols-2">
        {what === 'leak' && (
          <label className="block">
            <span className="kicker">Water caught, mL (if any)</span>
            <input
              className="field num !min-h-14 text-[1.2rem]"
              inputMode="decimal"
              value={amount}
              onChange={(e) => setAmount(e.target.value)}
            />
          </label>
        )}
        <label className="block">
          <span className="kicker">{what === 'leak' ? 'Where, and when' : 'Note'}</span>
          <input
            className="field !min-h-14 text-[1.1rem]"
            maxLength={400}
            value={note}
            onChange={(e) => setNote(e.target.value)}
            onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
          />
        </label>
      </div>
      <div role="status" aria-label="Result" className="py-1">
        <ResultWords finding={finding} />
      </div>
      <ReadingList readings={readings}>{(r) => <Tried reading={r} />}</ReadingList>
    </Shell>
  )
}

function Tried({ reading: r }: { readonly reading: Reading }) {
  const what = r.series as What
  const [yes, no] = ASKS[what] ?? ['yes', 'no']
  return (
    <>
      <span className="min-w-0 flex-1 truncate text-[1rem]">
        {PRIME_WORDS[what]}
        {r.note && <span className="muted"> · {r.note}</span>}
      </span>
      <span className="text-[1rem]">{(r.outcome === 'yes' ? yes : no).toLowerCase()}</span>
      {TIMED.includes(what) && r.seconds !== null && <Num si={r.seconds} dimension="time" />}
    </>
  )
}
