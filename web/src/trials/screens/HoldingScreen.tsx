import { useState } from 'react'
import { removeRow } from '../../frame/removed'
import { Num } from '../../figures/Num'
import { useFinding } from '../useFinding'
import type { ScreenProps } from '../kind'
import { keepReading, ReadingList, ResultWords } from './readings'
import { BigButton, Chips, SecondButton, Shell } from './Shell'
import { tick } from './useAwake'
import { useBenchKeys } from './useBenchKeys'
import { useStopwatch } from './useStopwatch'

const THINGS = [
  ['cups', 'Cups'],
  ['clips', 'Clips'],
  ['bracket', 'Bracket'],
] as const

/** How long it holds: let go, or still holding when the watch ends; the second is never counted as the first. */
export function HoldingScreen({ dossier, trial, readings }: ScreenProps) {
  const watch = useStopwatch(trial.id)
  const [setup, setSetup] = useState(readings.length === 0 && !watch.running)
  const [thing, setThing] = useState<(typeof THINGS)[number][0]>('cups')
  const [said, setSaid] = useState('')
  const finding = useFinding(dossier, trial)
  const end = (outcome: 'let-go' | 'still'): void => {
    const seconds = Math.round(watch.end() * 10) / 10
    keepReading(trial, { seconds, outcome, series: thing })
    tick()
    setSaid(
      outcome === 'still' ? `Still holding at ${seconds} s: kept as that.` : `Let go after ${seconds} s.`,
    )
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
      if (!setup) (watch.running ? () => end('let-go') : watch.begin)()
    },
    backspace: () => !setup && undo(),
    other: (key) => {
      if (setup || !watch.running || key.toLowerCase() !== 's') return false
      end('still')
      return true
    },
  })
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
        watch.running ? (
          <div className="flex h-[46dvh] min-h-56 flex-col gap-px">
            <BigButton running seconds={watch.seconds} onPress={() => end('let-go')} label="It let go" half />
            <SecondButton
              label="Still holding: end the watch"
              hint="or the key S"
              onPress={() => end('still')}
            />
          </div>
        ) : (
          <BigButton
            running={false}
            seconds={0}
            onPress={watch.begin}
            label={`Start try ${readings.length + 1}`}
          />
        )
      }
    >
      <Chips label="What holds it" options={THINGS} value={thing} onChange={setThing} />
      <div role="status" aria-label="Result" className="py-1">
        <ResultWords finding={finding} />
      </div>
      <ReadingList readings={readings}>
        {(r) => (
          <>
            <span className="muted flex-1">{r.series}</span>
            <span>
              {r.outcome === 'still' && '≥ '}
              {r.seconds !== null && <Num si={r.seconds} dimension="time" />}
            </span>
            <span className="muted w-24 text-[0.9rem]">
              {r.outcome === 'still' ? 'still held' : 'let go'}
            </span>
          </>
        )}
      </ReadingList>
    </Shell>
  )
}
