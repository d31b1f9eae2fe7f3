import type { Instrument, Reading, Trial } from '@ypsometer/contract'
import { READING_SHAPES } from '@ypsometer/core/trials/readings'
import type { Dimension } from '@ypsometer/core/units/dimensions'
import { useState } from 'react'
import { removeRow } from '../../frame/removed'
import { FigureView } from '../../figures/FigureView'
import { Num } from '../../figures/Num'
import { LiveStrip } from '../../instruments/LiveStrip'
import { RigButton } from '../../instruments/RigButton'
import { useInstruments } from '../../instruments/useInstruments'
import { useLogger } from '../../instruments/useLogger'
import { useTrialView } from '../view'
import { useFinding } from '../useFinding'
import type { NumberCell, ScreenProps } from '../kind'
import { Entry } from './Entry'
import { keepReading, kFactorOf, ReadingList, ResultWords } from './readings'
import { Chips, Shell } from './Shell'
import { tick } from './useAwake'
import { useBenchKeys } from './useBenchKeys'
import type { Limits } from '@ypsometer/core/bench/shape'

const LOG_SECONDS = 60

/** Numbers read off: watts, levels, heights, flows, pulses against a known volume. */
export function ValueScreen({ dossier, trial, readings }: ScreenProps) {
  const view = useTrialView()
  const words = view.value
  const choices = view.series?.(trial) ?? []
  const called = (v: string): string => choices.find(([c]) => c === v)?.[1] ?? v
  const { instrument: source, perVessel } = view
  const [setup, setSetup] = useState(readings.length === 0)
  const [series, setSeries] = useState('with')
  const [said, setSaid] = useState('')
  const { frames } = useInstruments()
  const frame = frames.at(-1)
  const sensor = source && frame?.sensors[source.gives]
  const live = sensor?.state === 'live' ? sensor.value : null
  const logger = useLogger(trial.id, source?.gives ?? 'power')
  const finding = useFinding(dossier, trial)
  const logs = dossier.logs.filter((l) => l.trialId === trial.id)
  const shape = READING_SHAPES[trial.kind].value
  const used = choices.length ? series : ''
  const keep = (value: number, from: string): void => {
    keepReading(trial, {
      value: perVessel ? Math.round(value) : value,
      series: used,
      source: from,
      ...(perVessel && { volume: trial.vesselVolume }),
    })
    tick()
    setSaid(`Reading ${readings.length + 1} kept.`)
  }
  const undo = (): void => {
    const last = readings.at(-1)
    if (logger.left !== null) logger.cancel()
    else if (last) {
      removeRow('readings', last, `Reading ${readings.length}`)
      setSaid(`Reading ${readings.length} taken out.`)
    }
  }
  const take = (): void => {
    if (live !== null) keep(live, frame?.identity ?? '')
    else setSaid('No instrument gives a value: type the number.')
  }
  useBenchKeys({ space: () => !setup && source && take(), backspace: () => !setup && undo() })
  if (!words || !shape) return null
  const dimension = words.dimension
  return (
    <Shell
      dossier={dossier}
      trial={trial}
      fresh={readings.length === 0 && logs.length === 0}
      onSetup={setSetup}
      status={logger.left !== null ? `Logging, ${Math.ceil(logger.left)} s left.` : logger.said || said}
      undo={{
        label: logger.left !== null ? 'End log' : 'Undo',
        run: undo,
        off: logger.left === null && !readings.length,
      }}
      lower={
        <Keys
          perVessel={perVessel}
          trial={trial}
          words={words}
          dimension={dimension}
          shape={shape}
          keep={keep}
          source={source}
          live={live}
          take={take}
          logger={logger}
          used={used}
        />
      }
    >
      {choices.length > 0 && (
        <Chips label="Filter running" options={choices} value={series} onChange={setSeries} />
      )}
      <LiveStrip
        show={perVessel ? ['pulses'] : source ? [source.gives, 'temperature'] : ['temperature']}
        kFactor={kFactorOf(trial)}
      />
      {source && <RigButton trial={trial} model={dossier.model.name} />}
      <div className="py-2" role="status" aria-label="Result">
        {finding?.problem && <p className="text-warning">{finding.problem}</p>}
        {finding?.figures[0] && <FigureView figure={finding.figures[0]} size="lg" />}
        <ResultWords finding={finding} />
      </div>
      {logs.map((l) => (
        <p key={l.id} className="rule-b num flex justify-between gap-3 py-1.5">
          <span className="muted">
            log of {l.n} points{l.series && `, ${called(l.series).toLowerCase()}`}
          </span>
          <Num si={l[source?.log ?? 'mean']} dimension={dimension} />
        </p>
      ))}
      <ReadingList readings={readings}>
        {(r) => (
          <ValueOf
            reading={r}
            called={called(r.series)}
            dimension={dimension}
            {...(words.unit && { unit: words.unit })}
          />
        )}
      </ReadingList>
    </Shell>
  )
}

/** The keypad, and the button that takes what stands on it. */
function Keys({
  perVessel,
  trial,
  words,
  dimension,
  shape,
  keep,
  source,
  live,
  take,
  logger,
  used,
}: {
  readonly perVessel: ((vessel: number) => string) | undefined
  readonly trial: Trial
  readonly words: Omit<NumberCell, 'field'>
  readonly dimension: Dimension
  readonly shape: Limits
  readonly keep: (value: number, from: string) => void
  readonly source: { readonly gives: Instrument; readonly log?: 'mean' | 'energyMean' } | undefined
  readonly live: number | null
  readonly take: () => void
  readonly logger: {
    left: number | null
    said: string
    start: (seconds: number, series: string) => void
    cancel: () => void
  }
  readonly used: string
}) {
  return (
    <div className="rule-t px-4 pt-2 pb-4">
      <div className="sm:mx-auto sm:max-w-3xl">
        <Entry
          label={perVessel?.(trial.vesselVolume) ?? words.label}
          dimension={dimension}
          {...(words.unit && { unit: words.unit })}
          min={shape.min}
          max={shape.max}
          keep="Keep"
          draft={`value.${trial.id}`}
          onKeep={(si) => keep(si, '')}
        />
        {source && (
          <div className="grid grid-cols-2 gap-3">
            <button
              type="button"
              className="btn btn-neutral h-20 flex-col gap-0 text-[1.1rem]"
              disabled={live === null}
              onClick={take}
            >
              Take this reading
              <span className="block text-[0.85rem] font-normal opacity-80">or the space bar</span>
            </button>
            <button
              type="button"
              className="btn h-20 text-[1.1rem]"
              disabled={live === null || logger.left !== null}
              onClick={() => logger.start(LOG_SECONDS, used)}
            >
              Log for {LOG_SECONDS} s
            </button>
          </div>
        )}
        {logger.left !== null && (
          <progress
            className="progress mt-2 w-full"
            aria-label="Log"
            value={LOG_SECONDS - logger.left}
            max={LOG_SECONDS}
          />
        )}
      </div>
    </div>
  )
}

function ValueOf({
  reading,
  called,
  dimension,
  unit,
}: {
  readonly reading: Reading
  readonly called: string
  readonly dimension: Dimension
  readonly unit?: string
}) {
  return (
    <>
      <span className="muted flex-1 truncate text-[0.95rem]">
        {called}
        {reading.volume !== null && <Num si={reading.volume} dimension="volume" />}
        {reading.source && ' · from the instrument'}
      </span>
      {reading.value !== null && <Num si={reading.value} dimension={dimension} {...(unit && { unit })} />}
    </>
  )
}
