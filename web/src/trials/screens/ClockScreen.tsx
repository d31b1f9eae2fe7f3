import type { Reading, Trial } from '@ypsometer/contract'
import {
  runsNeeded,
  type FlowResult,
  type TimingMethod,
  type VesselRun,
} from '@ypsometer/core/bench/flowRuns'
import { SHORTEST_RUN } from '@ypsometer/core/bench/shape'
import { trialFlow } from '@ypsometer/core/trials/flow'
import { wholeReadings } from '@ypsometer/core/trials/readings'
import { trialFlowFigure, runFigure, trialConditions } from '@ypsometer/core/trials/flows'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { removeRow } from '../../frame/removed'
import { FigureView } from '../../figures/FigureView'
import { Num, Percent } from '../../figures/Num'
import { precision } from '../../settings/settings'
import { LiveStrip } from '../../instruments/LiveStrip'
import { RigButton } from '../../instruments/RigButton'
import { latestFrame, useInstruments } from '../../instruments/useInstruments'
import { methodIn } from '../methodIn'
import { useTrialView } from '../view'
import { startTrial } from '../startTrial'
import type { Clocked, ScreenProps, SecondNumber } from '../kind'
import { Entry } from './Entry'
import { keepReading, kFactorOf, ReadingList } from './readings'
import { BigButton, Chips, Shell } from './Shell'
import { tick } from './useAwake'
import { useBenchKeys } from './useBenchKeys'
import { usePending } from './usePending'
import { useStopwatch } from './useStopwatch'

const NO_CLOCK: Clocked = { live: [] }

/** Runs of a trial by the clock: begun and ended, their second number, and the last of them taken back. */
function useRuns(
  { trial, readings }: ScreenProps,
  { view, clock }: { readonly view: ReturnType<typeof useTrialView>; readonly clock: Clocked },
) {
  const { second } = clock
  const watch = useStopwatch(trial.id)
  const [said, setSaid] = useState('')
  /** Seconds (and the meter's count at the start) of a run that still wants its second number. */
  const pending = usePending<{ seconds: number; value?: number; source?: string }>(`run.${trial.id}`)
  const startCount = usePending<number>(`count.${trial.id}`)
  const runs = clock.timed ? readings.filter((r) => r.series === clock.timed) : readings

  const press = (): void => {
    if (!watch.running) {
      setSaid('')
      startCount.set(second?.counted ? shown(second) : null)
      watch.begin()
      return
    }
    const frame = latestFrame()
    const seconds = Math.round(watch.end() * 100) / 100
    if (seconds < SHORTEST_RUN)
      return setSaid(`Ignored: ${seconds.toFixed(2)} s is too short. Empty the vessel and start again.`)
    tick()
    if (!second) {
      keepReading(trial, { volume: trial.vesselVolume, seconds })
      return setSaid(`Run ${runs.length + 1} kept: ${seconds.toFixed(2)} s.`)
    }
    const count = second.counted ? shown(second) : null
    const counted = startCount.value !== null && count !== null ? count - startCount.value : null
    pending.set({
      seconds,
      ...(counted !== null && counted > 0 && { value: counted, source: frame?.identity ?? '' }),
    })
    setSaid(`${seconds.toFixed(2)} s are kept; now the ${view.value?.label.toLowerCase() ?? 'reading'}.`)
  }
  const undo = (): void => {
    const last = readings.at(-1)
    if (watch.running) {
      watch.end()
      setSaid('The running clock was dropped.')
    } else if (pending.value) {
      pending.set(null)
      setSaid('The run was dropped.')
    } else if (last) {
      removeRow('readings', last, `Run ${readings.length}`)
      setSaid(`Run ${readings.length} taken out.`)
    }
  }
  const finish = (value: number, source: string): void => {
    const { seconds } = pending.value ?? { seconds: 0 }
    keepReading(trial, {
      seconds,
      value: second?.counted ? Math.round(value) : value,
      source,
      ...(clock.timed && { series: clock.timed, volume: trial.vesselVolume }),
    })
    pending.set(null)
    setSaid(`Run ${runs.length + 1} kept.`)
  }
  return { watch, said, setSaid, pending, runs, press, undo, finish }
}

/** Flows by the clock: into a vessel, onto a scale, through a meter, or lifted by air. */
export function ClockScreen(props: ScreenProps) {
  const { dossier, trial, readings } = props
  const view = useTrialView()
  const clock = view.clock ?? NO_CLOCK
  const { second } = clock
  const kinds = view.series?.(trial) ?? []
  const called = (v: string): string => kinds.find(([k]) => k === v)?.[1] ?? v
  const [setup, setSetup] = useState(readings.length === 0)
  const [series, setSeries] = useState(clock.timed ?? '')
  const timed = series === (clock.timed ?? '')
  const { watch, said, setSaid, pending, runs, press, undo, finish } = useRuns(props, { view, clock })
  useInstruments()
  const method = useMemo(() => methodIn(dossier, trial), [dossier, trial])
  const result = useMemo(() => safeFlow(trial, runs, method), [trial, runs, method])
  const active = !setup && !pending.value && timed
  useBenchKeys({ space: () => active && press(), backspace: () => !setup && undo() })
  const conditions = trialConditions(trial, dossier)
  return (
    <Shell
      dossier={dossier}
      trial={trial}
      fresh={readings.length === 0}
      onSetup={setSetup}
      status={
        watch.running && watch.found ? 'A run was going when the page closed; the clock kept on.' : said
      }
      undo={{
        label: watch.running || pending.value ? 'Drop' : 'Undo',
        run: undo,
        off: !watch.running && !pending.value && !readings.length,
      }}
      lower={
        pending.value && second ? (
          <div className="rule-t px-4 py-3">
            <PendingEntry second={second} trial={trial} pending={pending.value} onKeep={finish} />
          </div>
        ) : second && !timed ? (
          <SeriesEntry
            second={second}
            trial={trial}
            series={series}
            label={called(series)}
            onSaid={setSaid}
          />
        ) : (
          <BigButton
            running={watch.running}
            seconds={watch.seconds}
            onPress={press}
            label={watch.running ? (clock.stop ?? 'Stop: full to the mark') : `Start run ${runs.length + 1}`}
          />
        )
      }
    >
      {kinds.length > 0 && (
        <Chips label="What is measured" options={kinds} value={series} onChange={setSeries} />
      )}
      {clock.live.length > 0 && <LiveStrip show={clock.live} kFactor={kFactorOf(trial)} />}
      {second && <RigButton trial={trial} model={dossier.model.name} />}
      <Result result={result} runs={runs} trial={trial} method={method} conditions={conditions} />
      {clock.lifts && (
        <LiftStep dossier={dossier} trial={trial} busy={watch.running || pending.value !== null} />
      )}
      <ReadingList readings={readings} label="Runs, newest first">
        {(r, i) => (
          <Lap
            run={r}
            index={i}
            trial={trial}
            called={r.series === (clock.timed ?? '') ? '' : called(r.series)}
            suspect={result?.suspect?.index === runs.indexOf(r)}
            flow={result?.flows[runs.indexOf(r)]}
          />
        )}
      </ReadingList>
    </Shell>
  )
}

/** The trial's flow, or null while its readings do not give one. */
function safeFlow(trial: Trial, runs: readonly Reading[], method: TimingMethod): FlowResult | null {
  try {
    return trialFlow({
      kind: trial.kind,
      method,
      setup: trial.setup,
      waterTemperature: trial.waterTemperature,
      salinity: trial.salinity,
      runs,
    })
  } catch {
    return null
  }
}

/** Reading of an instrument now; null while it shows nothing that can be trusted. */
const shown = ({ instrument }: Pick<SecondNumber, 'instrument'>): number | null => {
  const sensor = latestFrame()?.sensors[instrument]
  return sensor?.state === 'live' ? sensor.value : null
}

function PendingEntry({
  second,
  trial,
  pending,
  onKeep,
}: {
  readonly second: SecondNumber
  readonly trial: Trial
  readonly pending: { readonly seconds: number; readonly value?: number; readonly source?: string }
  readonly onKeep: (value: number, source: string) => void
}) {
  const { value: words } = useTrialView()
  const { frames } = useInstruments()
  if (!words) return null
  const live = second.counted ? null : shown(second)
  const si = pending.value ?? (live !== null && live > 0 ? live : null)
  return (
    <Entry
      label={`${words.label} in ${pending.seconds.toFixed(2)} s`}
      dimension={words.dimension}
      {...(words.unit && { unit: words.unit })}
      min={second.min}
      max={second.max}
      keep="Keep the run"
      draft={`run.${trial.id}`}
      offered={si === null ? null : { label: second.take(si), si }}
      autoFocus
      onKeep={(v, how) =>
        onKeep(v, how === 'instrument' ? (pending.source ?? frames.at(-1)?.identity ?? '') : '')
      }
    />
  )
}

/** A number of a series that is not timed. */
function SeriesEntry({
  second,
  trial,
  series,
  label,
  onSaid,
}: {
  readonly second: SecondNumber
  readonly trial: Trial
  readonly series: string
  readonly label: string
  readonly onSaid: (s: string) => void
}) {
  const { value: words } = useTrialView()
  const { frames } = useInstruments()
  if (!words) return null
  const si = series === second.alsoOf ? shown(second) : null
  return (
    <div className="rule-t px-4 py-3">
      <Entry
        key={series}
        label={label}
        dimension={words.dimension}
        {...(words.unit && { unit: words.unit })}
        min={second.min}
        max={second.max}
        keep="Keep"
        draft={`${series}.${trial.id}`}
        offered={si === null ? null : { label: second.take(si), si }}
        onKeep={(v, how) => {
          const source = how === 'instrument' ? (frames.at(-1)?.identity ?? '') : ''
          keepReading(trial, { value: v, series, source })
          tick()
          onSaid(`${label} kept.`)
        }}
      />
    </div>
  )
}

/** The next step of a head series: the same trial at another lift, made at the first press. */
function LiftStep({
  dossier,
  trial,
  busy,
}: {
  readonly dossier: ScreenProps['dossier']
  readonly trial: Trial
  readonly busy: boolean
}) {
  const navigate = useNavigate()
  const claim = dossier.claims.find((c) => c.quantity === 'max-head')?.value ?? null
  const step = claim === null ? 0.2 : Math.max(0.05, Math.round(claim * 20) / 100)
  if (busy || trial.state !== 'empty' || trial.hookupId !== null) return null
  const go = (lift: number): void => {
    const there = dossier.trials.find(
      (t) =>
        t.kind === trial.kind &&
        t.state === 'empty' &&
        t.hookupId === null &&
        Math.abs(t.lift - lift) < 0.005,
    )
    const id = there?.id ?? startTrial(dossier, trial.kind, { state: 'empty', hookupId: null, lift })
    void navigate(`/models/${trial.modelId}/bench/${id}/run`, { replace: true })
  }
  const at = (lift: number): number => Math.round(Math.max(0, lift) * 1000) / 1000
  return (
    <div className="flex items-center gap-3 py-1" role="group" aria-label="Head series">
      <button
        type="button"
        className="btn h-14 px-4"
        disabled={trial.lift <= 0}
        onClick={() => go(at(trial.lift - step))}
      >
        Lower
      </button>
      <p className="flex-1 text-center">
        Outlet at <Num si={trial.lift} dimension="head" className="font-medium" />
      </p>
      <button type="button" className="btn h-14 px-4" onClick={() => go(at(trial.lift + step))}>
        Raise by <Num si={step} dimension="head" digits={2} />
      </button>
    </div>
  )
}

function Result({
  result,
  runs,
  trial,
  method,
  conditions,
}: {
  readonly result: FlowResult | null
  readonly runs: readonly Reading[]
  readonly trial: Trial
  readonly method: TimingMethod
  readonly conditions: readonly string[]
}) {
  const { how, clock } = useTrialView()
  if (!result)
    return (
      <p className="py-3 text-[1.1rem]">
        {clock?.second ? (
          how
        ) : (
          <>
            Empty the vessel, hold the outlet over it, and press start as the water begins to fall in. Stop at
            the <Num si={trial.vesselVolume} dimension="volume" /> mark.
          </>
        )}
      </p>
    )
  return (
    <div className="py-2" role="status" aria-label="Mean flow">
      <FigureView
        figure={trialFlowFigure(
          { id: trial.id, when: trial.createdAt, kind: trial.kind },
          result,
          conditions,
        )}
        size="lg"
      />
      <p className="muted mt-1">
        ± <Percent share={result.expandedUncertainty / result.mean} /> from {result.n}{' '}
        {result.n === 1 ? 'run' : 'runs'}.{' '}
        {clock?.advises && <Advice runs={runs} method={method} suspect={result.suspect?.index ?? null} />}
      </p>
    </div>
  )
}

function Advice({
  runs,
  method,
  suspect,
}: {
  readonly runs: readonly Reading[]
  readonly method: TimingMethod
  readonly suspect: number | null
}) {
  const target = Number(precision.use())
  if (runs.length < 2) return 'Time at least 5 to see the spread.'
  if (suspect !== null) return `Run ${suspect + 1} does not fit the others. Remove it, or repeat it.`
  const timed: readonly VesselRun[] = wholeReadings('vessel', runs)
  const needed = runsNeeded(timed, target, method)
  const wanted = <Percent share={target} decimals={0} />
  if (!needed.possible)
    return (
      <>
        More runs cannot reach ± {wanted}: vessel and stopwatch allow ± <Percent share={needed.floor} />. Use
        a larger vessel.
      </>
    )
  if (needed.more > 0)
    return (
      <>
        About {needed.more} more {needed.more === 1 ? 'run' : 'runs'} for ± {wanted}.
      </>
    )
  return runs.length < 5 ? (
    <>Target ± {wanted} reached. Five runs would reveal an outlier.</>
  ) : (
    <>Target ± {wanted} reached.</>
  )
}

function Lap({
  run,
  index,
  trial,
  called,
  suspect,
  flow,
}: {
  readonly run: Reading
  readonly index: number
  readonly trial: Trial
  /** Subject of a value that was not timed. */
  readonly called: string
  readonly suspect: boolean
  readonly flow: number | undefined
}) {
  return (
    <>
      <span className="w-24 text-right">{run.seconds === null ? '' : `${run.seconds.toFixed(2)} s`}</span>
      <span className="flex-1 text-right">
        {flow !== undefined ? (
          <FigureView figure={runFigure(run, flow, index, trial.kind)} inline />
        ) : (
          run.value !== null && <Num si={run.value} dimension="flow" unit="L/min" />
        )}
      </span>
      <span className="text-warning w-28 text-[0.88rem] leading-tight">
        {suspect && 'possible outlier, still counted'}
        {called && <span className="muted">{called}</span>}
      </span>
    </>
  )
}
