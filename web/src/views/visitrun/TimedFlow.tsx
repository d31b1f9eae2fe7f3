import type { Visit } from '@ypsometer/contract'
import { visitFlow } from '@ypsometer/core/visits/history'
import type { TimedRun } from '@ypsometer/core/visits/record'
import { Undo2 } from 'lucide-react'
import { changeRow } from '../../api/rows'
import { QuantityInput } from '../../fields/QuantityInput'
import { FigureView } from '../../figures/FigureView'
import { units } from '../../settings/settings'
import { saidText } from '@ypsometer/core/figures/figure'
import { tick } from '../../trials/screens/useAwake'
import { useBenchKeys } from '../../trials/screens/useBenchKeys'
import { useStopwatch } from '../../trials/screens/useStopwatch'
import { useState } from 'react'

/** Shortest run that a thumb can time (s). */
const SHORTEST = 0.5
const USUAL = 0.005

/** A vessel and a watch: each stop is a run, kept as it comes. */
export function TimedFlow({ visit, when }: { readonly visit: Visit; readonly when: 'before' | 'after' }) {
  const field = when === 'before' ? 'runsBefore' : 'runsAfter'
  const runs = visit[field]
  const other = when === 'before' ? visit.runsAfter : visit.runsBefore
  const [vessel, setVessel] = useState<number>(runs.at(-1)?.volume ?? other.at(-1)?.volume ?? USUAL)
  const watch = useStopwatch(`visit.${visit.id}.${when}`)
  const system = units.use()
  const write = (next: readonly TimedRun[]): void => changeRow('visits', visit, { [field]: [...next] })
  const press = (): void => {
    if (!watch.running) return watch.begin()
    const seconds = Math.round(watch.end() * 100) / 100
    // A slip of the thumb is no run.
    if (seconds < SHORTEST) return
    tick()
    write([...runs, { volume: vessel, seconds }])
  }
  const undo = (): void => {
    if (watch.running) watch.end()
    else if (runs.length) write(runs.slice(0, -1))
  }
  useBenchKeys({ space: press, backspace: undo })
  const figure = visitFlow(visit, when)
  return (
    <div>
      <div className="flex items-end gap-4">
        <div className="w-36">
          <span className="kicker block">The vessel holds</span>
          <QuantityInput
            label="The vessel holds"
            si={vessel}
            dimension="volume"
            min={0.0001}
            max={1}
            onCommit={setVessel}
          />
        </div>
        {figure && (
          <p className="text-[1.2rem]">
            <FigureView figure={figure} inline />
          </p>
        )}
      </div>
      <button
        type="button"
        className={`mt-3 flex min-h-40 w-full cursor-pointer flex-col items-center justify-center select-none ${watch.running ? 'bg-primary text-primary-content' : 'bg-base-content text-base-100'}`}
        style={{ touchAction: 'manipulation' }}
        onClick={press}
      >
        <span className="num text-[2.8rem] leading-none font-semibold" aria-hidden="true">
          {watch.seconds.toFixed(1)}
          <span className="ml-2 text-[1.2rem] opacity-80">s</span>
        </span>
        <span className="mt-1 text-[1.35rem] font-bold">
          {watch.running ? 'Full: stop' : 'Start filling'}
        </span>
        <span className="text-[0.92rem] opacity-80">or the space bar</span>
      </button>
      <ol className="mt-2" aria-label="Runs">
        {runs.map((r, i) => (
          <li key={i} className="rule-b flex justify-between gap-3 py-1.5">
            <span className="num">
              {saidText({ si: r.volume, dimension: 'volume' }, system)} in {r.seconds.toFixed(2)} s
            </span>
            <span className="num muted">
              {saidText({ si: r.volume / r.seconds, dimension: 'flow' }, system)}
            </span>
          </li>
        ))}
      </ol>
      {runs.length > 0 && (
        <button type="button" className="btn mt-2 h-12" onClick={undo}>
          <Undo2 size={18} aria-hidden="true" /> Take the last one back
        </button>
      )}
    </div>
  )
}
