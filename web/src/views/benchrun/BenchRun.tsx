import type { Reading, Trial } from '@ypsometer/contract'
import { timingMethod } from '@ypsometer/contract'
import { flowFromRuns, runsNeeded, type FlowResult } from '@ypsometer/core/bench'
import { ArrowLeft, Settings2, Undo2, X } from 'lucide-react'
import { useMemo, useState } from 'react'
import { Link, useParams } from 'react-router'
import { createRow, deleteRow, useDossier } from '../../api/queries'
import { Num, Percent } from '../../figures/Num'
import { Mark } from '../../figures/Provenance'
import { KeptNote } from '../../frame/KeptNote'
import { precision } from '../../frame/settings'
import { Failed, Loading } from '../../frame/States'
import { Toasts } from '../../frame/Toasts'
import { Conditions } from './Conditions'
import { tick, useAwake } from './useAwake'
import { useBenchKeys } from './useBenchKeys'
import { useStopwatch } from './useStopwatch'

/** The bench posture: one clock, one button as large as a hand, runs kept as they come. */
export function BenchRun() {
  const { id = '', trialId = '' } = useParams()
  const { dossier, error, isPending, refetch } = useDossier(id)
  const trial = dossier?.trials.find((t) => t.id === trialId)
  if (!dossier)
    return isPending ? (
      <Loading />
    ) : (
      <Failed error={error ?? new Error('no answer')} what="this bench" retry={() => void refetch()} />
    )
  if (!trial) return <Failed error={new Error('this timing is not in the dossier')} what="this timing" />
  const runs = dossier.readings
    .filter((r) => r.trialId === trialId)
    .sort((a, b) => a.takenAt.localeCompare(b.takenAt))
  return <Timing trial={trial} runs={runs} title={dossier.model.name} hookups={dossier.hookups} />
}

interface TimingProps {
  readonly trial: Trial
  readonly runs: readonly Reading[]
  readonly title: string
  readonly hookups: Parameters<typeof Conditions>[0]['hookups']
}

function Timing({ trial, runs, title, hookups }: TimingProps) {
  const watch = useStopwatch(trial.id)
  const [setup, setSetup] = useState(runs.length === 0)
  const [said, setSaid] = useState('')
  useAwake()
  const result = useMemo(() => (runs.length ? flowFromRuns(runs, timingMethod(trial)) : null), [runs, trial])

  const press = (): void => {
    if (!watch.running) {
      setSetup(false)
      setSaid('')
      watch.begin()
      return
    }
    const seconds = Math.round(watch.end() * 100) / 100
    if (seconds < 0.5) {
      setSaid(
        `${seconds.toFixed(2)} s is too short to be a run, so it was not kept. Start again when the vessel is empty.`,
      )
      return
    }
    tick()
    createRow('readings', {
      trialId: trial.id,
      takenAt: new Date().toISOString(),
      volume: trial.vesselVolume,
      seconds,
    })
    setSaid(`Run ${runs.length + 1} kept: ${seconds.toFixed(2)} s.`)
  }
  const undo = (): void => {
    const last = runs.at(-1)
    if (watch.running) {
      watch.end()
      setSaid('The running clock was dropped.')
    } else if (last) {
      deleteRow('readings', last, `Run ${runs.length}`)
      setSaid(`Run ${runs.length} taken out.`)
    }
  }
  useBenchKeys({ space: press, backspace: undo })

  return (
    <div className="flex h-dvh flex-col">
      <header className="rule-b flex items-center gap-3 px-3 py-1.5">
        <Link
          to={`/models/${trial.modelId}/bench`}
          className="btn btn-ghost h-14 w-14 p-0"
          aria-label="Back to the bench"
        >
          <ArrowLeft aria-hidden="true" />
        </Link>
        <div className="min-w-0 flex-1 leading-tight">
          <h1 className="truncate text-[1.15rem]">{title}</h1>
          <KeptNote />
        </div>
        <button
          type="button"
          className="btn btn-ghost h-14 px-3"
          aria-expanded={setup}
          onClick={() => setSetup(!setup)}
        >
          <Settings2 aria-hidden="true" /> Conditions
        </button>
      </header>
      <main className="flex min-h-0 flex-1 flex-col">
        {setup ? (
          <div className="min-h-0 flex-1 overflow-y-auto px-4 py-3">
            <Conditions trial={trial} hookups={hookups} onDone={() => setSetup(false)} />
          </div>
        ) : (
          <div className="flex min-h-0 flex-1 flex-col px-4 pt-2 sm:mx-auto sm:w-full sm:max-w-3xl">
            <Result result={result} runs={runs} trial={trial} />
            <Laps runs={runs} suspect={result?.suspect?.index ?? null} />
          </div>
        )}
      </main>
      {!setup && (
        <>
          <div className="flex items-center justify-between gap-3 px-4 pb-2">
            <p role="status" className="muted min-w-0 flex-1 text-[0.95rem] leading-snug">
              {watch.running && watch.found
                ? 'A run was going when the page closed; the clock kept on.'
                : said}
            </p>
            <button
              type="button"
              className="btn h-14 px-5 text-[1.05rem]"
              disabled={!watch.running && !runs.length}
              onClick={undo}
            >
              <Undo2 aria-hidden="true" /> {watch.running ? 'Drop' : 'Undo'}
            </button>
          </div>
          <Toasts />
          <BigButton running={watch.running} seconds={watch.seconds} onPress={press} next={runs.length + 1} />
        </>
      )}
    </div>
  )
}

function BigButton({
  running,
  seconds,
  onPress,
  next,
}: {
  readonly running: boolean
  readonly seconds: number
  readonly onPress: () => void
  readonly next: number
}) {
  return (
    <button
      type="button"
      className={`flex h-[46dvh] min-h-44 w-full shrink-0 cursor-pointer flex-col items-center justify-center select-none ${running ? 'bg-primary text-primary-content' : 'bg-base-content text-base-100'}`}
      style={{ touchAction: 'manipulation' }}
      onPointerDown={(e) => e.button === 0 && onPress()}
      onKeyDown={(e) => e.key === 'Enter' && !e.repeat && onPress()}
    >
      <span className="num text-[4.6rem] leading-none font-semibold" aria-hidden="true">
        {seconds.toFixed(2)}
        <span className="ml-2 text-[1.6rem] opacity-80">s</span>
      </span>
      <span className="mt-3 text-[1.7rem] font-bold">
        {running ? 'Stop: full to the mark' : `Start run ${next}`}
      </span>
      <span className="mt-1 text-[1rem] opacity-80">or the space bar</span>
    </button>
  )
}

function Result({
  result,
  runs,
  trial,
}: {
  readonly result: FlowResult | null
  readonly runs: readonly Reading[]
  readonly trial: Trial
}) {
  if (!result)
    return (
      <p className="py-3 text-[1.1rem]">
        Empty the vessel, hold the outlet over it, and press start as the water begins to fall in. Stop at the{' '}
        <Num si={trial.vesselVolume} dimension="volume" /> mark.
      </p>
    )
  return (
    <div className="py-2" role="status" aria-label="Mean flow">
      <p className="text-primary text-[2.3rem] leading-none font-semibold">
        <Num si={result.mean} dimension="flow" uncertainty={result.expandedUncertainty} />
      </p>
      <p className="muted mt-1">
        <Mark of="measured" /> 95 % interval of {result.n} {result.n === 1 ? 'run' : 'runs'}, ±
        <Percent share={result.expandedUncertainty / result.mean} />. <Advice runs={runs} trial={trial} />
      </p>
    </div>
  )
}

function Advice({ runs, trial }: { readonly runs: readonly Reading[]; readonly trial: Trial }) {
  const target = Number(precision.use())
  if (runs.length < 2) return 'One run shows no scatter: time at least five.'
  const needed = runsNeeded(runs, target, timingMethod(trial))
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

function Laps({ runs, suspect }: { readonly runs: readonly Reading[]; readonly suspect: number | null }) {
  return (
    <ol className="rule-t min-h-0 flex-1 overflow-y-auto" aria-label="Runs, newest first">
      {runs
        .map((r, i) => (
          <li key={r.id} className="rule-b num flex items-center justify-between gap-3 text-[1.1rem]">
            <span className="muted w-8">{i + 1}</span>
            <span className="w-24 text-right">{r.seconds.toFixed(2)} s</span>
            <span className="flex-1 text-right">
              <Num si={r.volume / r.seconds} dimension="flow" digits={3} />
            </span>
            <span className="text-warning w-28 text-[0.88rem] leading-tight">
              {suspect === i && 'stands apart (kept)'}
            </span>
            <button
              type="button"
              className="btn btn-ghost h-12 w-12 p-0"
              aria-label={`Take out run ${i + 1}`}
              onClick={() => deleteRow('readings', r, `Run ${i + 1}`)}
            >
              <X size={18} aria-hidden="true" />
            </button>
          </li>
        ))
        .reverse()}
    </ol>
  )
}
