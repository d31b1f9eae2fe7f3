import { useState } from 'react'
import { removeRow } from '../../frame/removed'
import { Words } from '../../figures/Words'
import { DyeChart } from '../../charts/DyeChart'
import { DYE_POINTS } from '../dye/points'
import { useTrialView } from '../view'
import { useFinding } from '../useFinding'
import type { ScreenProps } from '../kind'
import { keepReading } from './readings'
import { BigButton, Chips, Shell } from './Shell'
import { tick } from './useAwake'
import { useBenchKeys } from './useBenchKeys'
import { useStopwatch } from './useStopwatch'

const STRENGTHS = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10] as const

/** Dye by eye: the clock starts as it goes in, and each tap notes how strong the colour is at a point now. */
export function DyeScreen({ dossier, trial, readings }: ScreenProps) {
  const { how } = useTrialView()
  const watch = useStopwatch(trial.id)
  const [setup, setSetup] = useState(readings.length === 0 && !watch.running)
  const points: readonly string[] = trial.setup.points?.length ? trial.setup.points : DYE_POINTS
  const [chosen, setChosen] = useState('')
  const point = points.includes(chosen) ? chosen : (points[0] ?? '')
  const [said, setSaid] = useState('')
  const finding = useFinding(dossier, trial)
  const last = readings.at(-1)
  const note = (value: number): void => {
    if (!watch.running) return
    const seconds = Math.round(watch.read() * 10) / 10
    keepReading(trial, { seconds, value, series: point })
    tick()
    setSaid(`${point}: ${value} at ${seconds.toFixed(1)} s.`)
  }
  const undo = (): void => {
    if (last) removeRow('readings', last, `Reading ${readings.length}`)
  }
  useBenchKeys({
    space: () => {
      if (setup) return
      if (!watch.running) watch.begin()
    },
    backspace: () => !setup && undo(),
    other: (key) => {
      if (setup || !/^[0-9]$/.test(key)) return false
      note(Number(key))
      return true
    },
  })
  return (
    <Shell
      dossier={dossier}
      trial={trial}
      fresh={readings.length === 0 && !watch.running}
      onSetup={setSetup}
      status={watch.running && watch.found && !said ? 'The clock kept on while the page was closed.' : said}
      undo={{ label: 'Undo', run: undo, off: !readings.length }}
      lower={
        watch.running ? (
          <div className="rule-t px-3 pt-2 pb-3">
            <div className="sm:mx-auto sm:max-w-3xl">
              <div className="flex items-center justify-between gap-3">
                <p className="num text-[2.2rem] leading-none font-semibold" aria-hidden="true">
                  {watch.seconds.toFixed(1)} <span className="text-[1.1rem] opacity-80">s</span>
                </p>
                <button
                  type="button"
                  className="btn h-14 px-5"
                  onClick={() => {
                    watch.end()
                    setSaid('The watch was ended.')
                  }}
                >
                  End the watch
                </button>
              </div>
              <p className="kicker mt-1">How strong is it at “{point}” now? Keys 0 to 9 do the same.</p>
              <div
                className="mt-1 grid grid-cols-4 gap-2 sm:grid-cols-6"
                role="group"
                aria-label={`Strength at ${point}`}
              >
                {STRENGTHS.map((s) => (
                  <button
                    key={s}
                    type="button"
                    className="btn num h-16 text-[1.5rem]"
                    onClick={() => note(s)}
                  >
                    {s}
                  </button>
                ))}
              </div>
            </div>
          </div>
        ) : (
          <BigButton
            running={false}
            seconds={null}
            onPress={() => watch.begin()}
            label={readings.length ? 'Dye in again: continue timing' : 'Dye in: start'}
          />
        )
      }
    >
      <Chips
        label="Point watched"
        options={points.map((p) => [p, p] as const)}
        value={point}
        onChange={setChosen}
      />
      {readings.length < 3 ? (
        <p className="py-2 text-[1.05rem]">{how}</p>
      ) : (
        <DyeChart trial={trial} readings={readings} name={dossier.model.name} small />
      )}
      <div role="status" aria-label="Result">
        {finding?.sentences.map((s, i) => (
          <p key={i} className="mt-1">
            <Words sentence={s} />
          </p>
        ))}
      </div>
    </Shell>
  )
}
