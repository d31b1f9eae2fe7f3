import type { Trial } from '@ypsometer/contract'
import { stepOf } from '@ypsometer/core/trials/water-test/find'
import { READING_SHAPES } from '@ypsometer/core/trials/readings'
import type { NumberCell, ScreenProps } from '../kind'
import { useState } from 'react'
import { Num } from '../../figures/Num'
import { removeRow } from '../../frame/removed'
import { Entry } from '../screens/Entry'
import { keepReading, ReadingList, ResultWords } from '../screens/readings'
import { Chips, Shell } from '../screens/Shell'
import { tick } from '../screens/useAwake'
import { useBenchKeys } from '../screens/useBenchKeys'
import { useFinding } from '../useFinding'
import { KitQuestion, substanceCounted, type Substance } from '../../tank/KitCounts'
import { kitCounts, type KitCounts } from '../../settings/settings'
import { changeSetup, SetupChoice, SetupNumber, SetupWords } from '../setup'
import { role } from '../../csv/target'
import type { TrialView } from '../kind'

const WORDS = {
  ammonia: 'Ammonia',
  nitrite: 'Nitrite',
  nitrate: 'Nitrate',
  ph: 'pH',
  temperature: 'Temperature',
} as const

/** The number of a series: a concentration, a pH or a temperature. */
const cell = (series: string): NumberCell => ({
  field: 'value',
  label: 'Reading',
  dimension: series === 'temperature' ? 'temperature' : series === 'ph' ? 'ratio' : 'concentration',
})

/** Headings of each column, in the languages that decimal commas come from as well. */
const HEADING: Readonly<Record<keyof typeof WORDS, RegExp>> = {
  ammonia: /ammoni|amoniak|amon[ií]aco|\bnh[34]\b|\btan\b/i,
  nitrite: /nitrit|azotyn|\bno2\b/i,
  nitrate: /nitra(t|at)|azotan|\bno3\b/i,
  ph: /\bph\b/i,
  temperature: /temp|°/i,
}
const QUANTITIES = Object.entries(WORDS) as [keyof typeof WORDS, string][]
const isSubstance = (q: string): q is Substance => q !== 'ph' && q !== 'temperature'
/** A quantity by its name, with what the kit counts of it; without, as long as nobody has said. */
const nameOf = (q: keyof typeof WORDS, counts: KitCounts | undefined): string =>
  counts && isSubstance(q) ? substanceCounted(q, counts) : WORDS[q]

/** One test after the other: what is read, its number, and on to the next. */
function TestScreen({ dossier, trial, readings }: ScreenProps) {
  const [setup, setSetup] = useState(readings.length === 0)
  const [what, setWhat] = useState<keyof typeof WORDS>('ammonia')
  const [said, setSaid] = useState('')
  const finding = useFinding(dossier, trial)
  const usual = kitCounts.use()
  // What the kit of this device counts holds for a test begun now; of readings that are there already it is asked.
  const read = readings.some((r) => isSubstance(r.series ?? ''))
  const counts = trial.setup.countedAs ?? (read ? undefined : usual || undefined)
  const name = nameOf(what, counts)
  const limits = READING_SHAPES['water-test'].valueBySeries?.[what]
  const { dimension } = cell(what)
  const keep = (value: number): void => {
    if (counts && trial.setup.countedAs === undefined) changeSetup(trial, { countedAs: counts })
    keepReading(trial, { series: what, value })
    tick()
    setSaid(`${name} kept.`)
    const next = QUANTITIES[QUANTITIES.findIndex(([q]) => q === what) + 1]
    if (next) setWhat(next[0])
  }
  const undo = (): void => {
    const last = readings.at(-1)
    if (last) removeRow('readings', last, `Reading ${readings.length}`)
  }
  useBenchKeys({ space: () => undefined, backspace: () => !setup && undo() })
  return (
    <Shell
      dossier={dossier}
      trial={trial}
      fresh={readings.length === 0}
      onSetup={setSetup}
      status={said}
      undo={{ label: 'Undo', run: undo, off: !readings.length }}
      lower={
        <div className="rule-t px-4 py-3 sm:mx-auto sm:w-full sm:max-w-3xl">
          {counts === undefined && isSubstance(what) ? (
            <KitQuestion large onChoose={(countedAs) => changeSetup(trial, { countedAs })} />
          ) : (
            <Entry
              key={what}
              label={name}
              dimension={dimension}
              min={limits?.min ?? 0}
              max={limits?.max ?? 500}
              keep="Keep"
              draft={`water.${trial.id}.${what}`}
              autoFocus
              onKeep={keep}
            />
          )}
        </div>
      }
    >
      <Chips label="What is tested" options={QUANTITIES} value={what} onChange={setWhat} />
      <div role="status" aria-label="Result" className="py-1">
        <ResultWords finding={finding} />
      </div>
      <ReadingList readings={readings}>
        {(r) => (
          <>
            <span className="muted flex-1">{nameOf(r.series as keyof typeof WORDS, counts)}</span>
            <Num si={r.value ?? 0} dimension={cell(r.series).dimension} />
          </>
        )}
      </ReadingList>
    </Shell>
  )
}

const Steps = ({ trial }: { readonly trial: Trial }) => (
  <>
    {(
      [
        ['ammonia', 'stepAmmonia'],
        ['nitrite', 'stepNitrite'],
        ['nitrate', 'stepNitrate'],
        ['ph', 'stepPh'],
        ['temperature', 'stepTemperature'],
      ] as const
    ).map(([q, field]) => (
      <SetupNumber
        key={field}
        trial={trial}
        field={field}
        label={`Step of ${q === 'ph' ? 'pH' : q === 'temperature' ? 'temperature, °C' : WORDS[q].toLowerCase()}`}
        dimension={q === 'temperature' ? 'ratio' : cell(q).dimension}
        usual={stepOf(trial.setup, q)}
      />
    ))}
  </>
)

export const waterTest: TrialView = {
  title: 'Water test',
  short: 'water test',
  value: { label: 'Reading', dimension: 'concentration' },
  how: 'Read each colour in daylight against its card, or take the meter’s number. Say which, and how fine it reads.',
  caution: 'Reagents: gloves, away from children and food; into no aquarium.',
  cells: (series) => [cell(series)],
  series: ({ setup }) => QUANTITIES.map(([q]) => [q, nameOf(q, setup.countedAs)]),
  Screen: TestScreen,
  Setup: ({ trial }) => (
    <>
      <SetupChoice
        trial={trial}
        field="readBy"
        label="Read by"
        options={[
          ['card', 'colour card'],
          ['meter', 'meter'],
        ]}
      />
      <SetupChoice
        trial={trial}
        field="countedAs"
        label="It counts"
        usual="Not set: the ion is assumed"
        options={[
          ['ion', 'the ion: NH₄, NO₂, NO₃'],
          ['nitrogen', 'the nitrogen in it'],
        ]}
      />
      <Steps trial={trial} />
      <SetupWords
        trial={trial}
        field="conditioner"
        label="Binding conditioner used"
        hint="Its name and when; empty for none."
      />
    </>
  ),
  imports: [
    {
      id: 'water-test',
      label: 'Water tests, a column a quantity',
      roles: QUANTITIES.map(([q, words]) => {
        const { min, max } = READING_SHAPES['water-test'].valueBySeries?.[q] ?? { min: 0, max: 500 }
        const { dimension } = cell(q)
        const unit = { concentration: 'mg/L', temperature: '°C', ratio: '' }[dimension as 'ratio']
        return role(q, words, dimension, unit, HEADING[q], [min, max], {})
      }),
      readings: (row) =>
        QUANTITIES.flatMap(([q]) => (row[q] === undefined ? [] : [{ series: q, value: row[q] }])),
    },
  ],
}
