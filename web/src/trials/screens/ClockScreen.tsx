import { SHORTEST_RUN } from '@ypsometer/core/trials'
import type { Reading, Trial } from '@ypsometer/contract'
import { timingMethod } from '@ypsometer/contract'
import { runsNeeded, type FlowResult, type VesselRun } from '@ypsometer/core/bench'
import { trialFlow, USUAL_SETUP } from '@ypsometer/core/trials'
import { flowFigure, runFigure, trialConditions } from '@ypsometer/core/judging'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { removeRow } from '../../frame/removed'
import { FigureView } from '../../figures/FigureView'
import { Num, Percent } from '../../figures/Num'
import { precision } from '../../frame/settings'
import { LiveStrip } from '../../instruments/LiveStrip'
import { RigButton } from '../../instruments/RigButton'
import { latestFrame, useInstruments } from '../../instruments/useInstruments'
import { AIR_WORDS } from '../air/words'
import { useTrialView } from '../view'
import { startTrial } from '../startTrial'
import type { ScreenProps } from '../kind'
import { Entry } from './Entry'
import { keepReading, ReadingList } from './readings'
import { BigButton, Chips, Shell } from './Shell'
import { tick } from './useAwake'
import { useBenchKeys } from './useBenchKeys'
import { usePending } from './usePending'
import { useStopwatch } from './useStopwatch'

const LIVE = {
  vessel: [],
  weighed: ['mass', 'temperature'],
  meter: ['pulses', 'temperature'],
  air: ['air'],
} as const
type ClockKind = keyof typeof LIVE

/** Flows by the clock: into a vessel, onto a scale, through a meter, or lifted by air. */
export function ClockScreen({ dossier, trial, readings }: ScreenProps) {
  const view = useTrialView()
  const kind = trial.kind as ClockKind
  const watch = useStopwatch(trial.id)
  const [said, setSaid] = useState('')
  const [setup, setSetup] = useState(readings.length === 0)
  const [airSeries, setAirSeries] = useState<keyof typeof AIR_WORDS>('water')
  /** Seconds (and the meter's count at the start) of a run that still wants its second number. */
  const pending = usePending<{ seconds: number; value?: number; source?: string }>(`run.${trial.id}`)
  const startCount = usePending<number>(`count.${trial.id}`)
  useInstruments()
  const runs = kind === 'air' ? readings.filter((r) => r.series === 'water') : readings
  const result = useMemo(() => safeFlow(trial, runs), [trial, runs])

  const press = (): void => {
    if (!watch.running) {
      setSaid('')
      const count = latestFrame()?.sensors.pulses
      startCount.set(kind === 'meter' && count?.state === 'live' ? count.value : null)
      watch.begin()
      return
    }
    const frame = latestFrame()
    const seconds = Math.round(watch.end() * 100) / 100
    if (seconds < SHORTEST_RUN)
      return setSaid(
        `${seconds.toFixed(2)} s is too short to be a run, so it was not kept. Start again when the vessel is empty.`,
      )
    tick()
    if (kind === 'vessel') {
      keepReading(trial, { volume: trial.vesselVolume, seconds })
      return setSaid(`Run ${runs.length + 1} kept: ${seconds.toFixed(2)} s.`)
    }
    const count = frame?.sensors.pulses
    const counted =
      kind === 'meter' && startCount.value !== null && count?.state === 'live' && count.value !== null
        ? count.value - startCount.value
        : null
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
  const active = !setup && !pending.value && (kind !== 'air' || airSeries === 'water')
  useBenchKeys({ space: () => active && press(), backspace: () => !setup && undo() })
  const finish = (value: number, source: string): void => {
    const { seconds } = pending.value ?? { seconds: 0 }
    keepReading(trial, {
      seconds,
      value: kind === 'meter' ? Math.round(value) : value,
      source,
      ...(kind === 'air' && { series: 'water', volume: trial.vesselVolume }),
    })
    pending.set(null)
    setSaid(`Run ${runs.length + 1} kept.`)
  }
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
        pending.value ? (
          <div className="rule-t px-4 py-3">
            <PendingEntry kind={kind} trial={trial} pending={pending.value} onKeep={finish} />
          </div>
        ) : kind === 'air' && airSeries !== 'water' ? (
          <AirEntry trial={trial} series={airSeries} onSaid={setSaid} />
        ) : (
          <BigButton
            running={watch.running}
            seconds={watch.seconds}
            onPress={press}
            label={watch.running ? (view.stop ?? 'Stop: full to the mark') : `Start run ${runs.length + 1}`}
          />
        )
      }
    >
      {kind === 'air' && (
        <Chips
          label="What is measured"
          options={Object.entries(AIR_WORDS) as [keyof typeof AIR_WORDS, string][]}
          value={airSeries}
          onChange={setAirSeries}
        />
      )}
      {LIVE[kind].length > 0 && (
        <LiveStrip
          show={LIVE[kind]}
          {...(kind === 'meter' && { kFactor: trial.setup.kFactor ?? USUAL_SETUP.kFactor })}
        />
      )}
      {kind !== 'vessel' && <RigButton trial={trial} model={dossier.model.name} />}
      <Result result={result} runs={runs} trial={trial} conditions={conditions} />
      {kind !== 'air' && (
        <LiftStep dossier={dossier} trial={trial} busy={watch.running || pending.value !== null} />
      )}
      <ReadingList readings={readings} label="Runs, newest first">
        {(r, i) => (
          <Lap
            run={r}
            index={i}
            trial={trial}
            suspect={result?.suspect?.index === runs.indexOf(r)}
            flow={result?.flows[runs.indexOf(r)]}
          />
        )}
      </ReadingList>
    </Shell>
  )
}

/** The trial's flow, or null while its readings do not give one. */
function safeFlow(trial: Trial, runs: readonly Reading[]): FlowResult | null {
  try {
    return trialFlow({
      kind: trial.kind === 'air' ? 'vessel' : trial.kind,
      method: timingMethod(trial),
      setup: trial.setup,
      waterTemperature: trial.waterTemperature,
      runs,
    })
  } catch {
    return null
  }
}

function PendingEntry({
  kind,
  trial,
  pending,
  onKeep,
}: {
  readonly kind: ClockKind
  readonly trial: Trial
  readonly pending: { readonly seconds: number; readonly value?: number; readonly source?: string }
  readonly onKeep: (value: number, source: string) => void
}) {
  const { value: words } = useTrialView()
  const { frames } = useInstruments()
  const frame = frames.at(-1)
  const live = kind === 'weighed' ? frame?.sensors.mass : kind === 'air' ? frame?.sensors.air : undefined
  if (!words) return null
  const offered =
    pending.value !== undefined
      ? { label: `Take ${pending.value} pulses from the meter`, si: pending.value }
      : live?.state === 'live' && live.value !== null && live.value > 0
        ? {
            label:
              kind === 'weighed'
                ? `Take ${live.value.toFixed(3)} kg from the scale`
                : `Take ${(live.value * 60000).toFixed(2)} L/min from the air meter`,
            si: live.value,
          }
        : null
  return (
    <Entry
      label={`${words.label} in ${pending.seconds.toFixed(2)} s`}
      dimension={words.dimension}
      {...(words.unit && { unit: words.unit })}
      min={kind === 'weighed' ? 1e-4 : kind === 'air' ? 0 : 1}
      max={kind === 'weighed' ? 1000 : kind === 'air' ? 0.1 : 1e9}
      keep="Keep the run"
      draft={`run.${trial.id}`}
      offered={offered}
      autoFocus
      onKeep={(si, how) => onKeep(si, how === 'instrument' ? (pending.source ?? frame?.identity ?? '') : '')}
    />
  )
}

function AirEntry({
  trial,
  series,
  onSaid,
}: {
  readonly trial: Trial
  readonly series: 'supplied' | 'riser'
  readonly onSaid: (s: string) => void
}) {
  const { frames } = useInstruments()
  const frame = frames.at(-1)
  const air = frame?.sensors.air
  return (
    <div className="rule-t px-4 py-3">
      <Entry
        key={series}
        label={AIR_WORDS[series]}
        dimension="flow"
        unit="L/min"
        min={0}
        max={0.1}
        keep="Keep"
        draft={`air.${trial.id}.${series}`}
        offered={
          series === 'supplied' && air?.state === 'live' && air.value !== null
            ? { label: `Take ${(air.value * 60000).toFixed(2)} L/min from the air meter`, si: air.value }
            : null
        }
        onKeep={(si, how) => {
          keepReading(trial, {
            value: si,
            series,
            source: how === 'instrument' ? (frame?.identity ?? '') : '',
          })
          tick()
          onSaid(`${AIR_WORDS[series]} kept.`)
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
  conditions,
}: {
  readonly result: FlowResult | null
  readonly runs: readonly Reading[]
  readonly trial: Trial
  readonly conditions: readonly string[]
}) {
  const { how } = useTrialView()
  if (!result)
    return (
      <p className="py-3 text-[1.1rem]">
        {trial.kind === 'vessel' ? (
          <>
            Empty the vessel, hold the outlet over it, and press start as the water begins to fall in. Stop at
            the <Num si={trial.vesselVolume} dimension="volume" /> mark.
          </>
        ) : (
          how
        )}
      </p>
    )
  return (
    <div className="py-2" role="status" aria-label="Mean flow">
      <FigureView
        figure={flowFigure({ id: trial.id, when: trial.createdAt, kind: trial.kind }, result, conditions)}
        size="lg"
      />
      <p className="muted mt-1">
        95 % interval of {result.n} {result.n === 1 ? 'run' : 'runs'}, ±
        <Percent share={result.expandedUncertainty / result.mean} />.{' '}
        {trial.kind === 'vessel' && <Advice runs={runs} trial={trial} />}
      </p>
    </div>
  )
}

function Advice({ runs, trial }: { readonly runs: readonly Reading[]; readonly trial: Trial }) {
  const target = Number(precision.use())
  if (runs.length < 2) return 'One run shows no scatter: time at least five.'
  const timed: VesselRun[] = runs.map((r) => ({ volume: r.volume ?? 0, seconds: r.seconds ?? 0 }))
  const needed = runsNeeded(timed, target, timingMethod(trial))
  const wanted = <Percent share={target} decimals={0} />
  if (!needed.possible)
    return (
      <>
        No number of runs reaches ±{wanted}: the vessel and the hand allow ±
        <Percent share={needed.floor} />. A larger vessel would.
      </>
    )
  if (needed.more > 0)
    return (
      <>
        About {needed.more} more for ±{wanted}.
      </>
    )
  return runs.length < 5 ? (
    <>Within ±{wanted} already; five runs show an odd one.</>
  ) : (
    <>Within ±{wanted}: enough.</>
  )
}

function Lap({
  run,
  index,
  trial,
  suspect,
  flow,
}: {
  readonly run: Reading
  readonly index: number
  readonly trial: Trial
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
        {suspect && 'stands apart (kept)'}
        {run.series && run.series !== 'water' && (
          <span className="muted">{AIR_WORDS[run.series as keyof typeof AIR_WORDS]}</span>
        )}
      </span>
    </>
  )
}
