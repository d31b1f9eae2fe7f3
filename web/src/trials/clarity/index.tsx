import { useState } from 'react'
import { removeRow } from '../../frame/removed'
import { Photos } from '../../photos/Photos'
import type { ScreenProps } from '../kind'
import { keepReading, ReadingList, ResultWords } from '../screens/readings'
import { Chips, Shell } from '../screens/Shell'
import { tick } from '../screens/useAwake'
import { useBenchKeys } from '../screens/useBenchKeys'
import { SetupWords } from '../setup'
import { useFinding } from '../useFinding'
import { role } from '../../csv/target'
import type { TrialView } from '../kind'

const MOMENTS = [
  ['before', 'Before'],
  ['minutes', 'Minutes after'],
  ['morning', 'Next morning'],
  ['later', 'Later'],
] as const
/** Headings of each column, in the languages that decimal commas come from as well. */
const HEADING: Readonly<Record<(typeof MOMENTS)[number][0], RegExp>> = {
  before: /before|vorher|avant|prima|antes|\bvoor|f[öø]r\b|przed/i,
  minutes: /minut/i,
  morning: /morn|morgen|matin|mattin|ma[ñn]an|manh[ãa]|ochtend|rano/i,
  later: /later|sp[äa]ter|plus tard|dopo|despu|depois|senare|senere|p[óo][źz]niej/i,
}
const RATINGS = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10] as const

/** A rating by eye, by tap or key, or a photo instead. */
function RatingScreen({ dossier, trial, readings }: ScreenProps) {
  const [setup, setSetup] = useState(readings.length === 0)
  const [moment, setMoment] = useState<(typeof MOMENTS)[number][0]>('before')
  const [said, setSaid] = useState('')
  const finding = useFinding(dossier, trial)
  const called = (v: string): string => MOMENTS.find(([m]) => m === v)?.[1] ?? v
  const keep = (outcome: 'rated' | 'photo', value: number | null): void => {
    keepReading(trial, { series: moment, outcome, value })
    tick()
    setSaid(`${called(moment)}: ${value === null ? 'a photo' : value}, kept.`)
  }
  const undo = (): void => {
    const last = readings.at(-1)
    if (last) removeRow('readings', last, `Reading ${readings.length}`)
  }
  useBenchKeys({
    space: () => undefined,
    backspace: () => !setup && undo(),
    other: (key) => {
      if (setup || !/^[0-9]$/.test(key)) return false
      keep('rated', Number(key))
      return true
    },
  })
  return (
    <Shell
      dossier={dossier}
      trial={trial}
      fresh={readings.length === 0}
      onSetup={setSetup}
      status={said}
      undo={{ label: 'Undo', run: undo, off: !readings.length }}
      lower={
        <div className="rule-t px-3 pt-2 pb-3 sm:mx-auto sm:w-full sm:max-w-3xl">
          <p className="kicker">
            How clear is it now? 0 hides the far pane, 10 is as if there were no water.
          </p>
          <div className="mt-1 grid grid-cols-4 gap-2 sm:grid-cols-6" role="group" aria-label="Clarity">
            {RATINGS.map((r) => (
              <button
                key={r}
                type="button"
                className="btn num h-16 text-[1.5rem]"
                onClick={() => keep('rated', r)}
              >
                {r}
              </button>
            ))}
            <button type="button" className="btn h-16 text-[1.05rem]" onClick={() => keep('photo', null)}>
              Photo only
            </button>
          </div>
        </div>
      }
    >
      <Chips label="When" options={MOMENTS} value={moment} onChange={setMoment} />
      <div role="status" aria-label="Result" className="py-1">
        <ResultWords finding={finding} />
      </div>
      <Photos owner={{ trialId: trial.id }} />
      <ReadingList readings={readings}>
        {(r) => (
          <>
            <span className="muted flex-1">{called(r.series)}</span>
            <span>{r.value === null ? 'photo' : r.value}</span>
          </>
        )}
      </ReadingList>
    </Shell>
  )
}

export const clarity: TrialView = {
  title: 'Clarity',
  short: 'clarity',
  value: { label: 'Clarity, 0 to 10', dimension: 'ratio' },
  how: 'From the same spot, in the same light: 0 hides the far pane, 10 is as if there were no water. A photo does as well.',
  series: () => MOMENTS,
  outcomes: [
    ['rated', 'rated'],
    ['photo', 'photo'],
  ],
  Screen: RatingScreen,
  Setup: ({ trial }) => <SetupWords trial={trial} field="spot" label="Looked at from" />,
  imports: [
    {
      id: 'clarity',
      label: 'Clarity, a column a moment',
      roles: MOMENTS.map(([m, words]) => role(m, words, 'ratio', '', HEADING[m], [0, 10], {})),
      readings: (row) =>
        MOMENTS.flatMap(([m]) =>
          row[m] === undefined ? [] : [{ series: m, outcome: 'rated', value: row[m] }],
        ),
    },
  ],
}
