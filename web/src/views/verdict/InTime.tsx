import { KIT_ZERO } from '@ypsometer/core/biology/balance'
import type { Simulation } from '@ypsometer/core/biology/inTime'
import { stoppedBody } from '@ypsometer/core/judging/redundancy'
import type { JudgedFill } from '@ypsometer/core/judging/fills'
import type { TankBalance } from '@ypsometer/core/judging/balanceWords'
import {
  OFF_FROM,
  SCENARIO_KINDS,
  USUAL_ASKS,
  type ScenarioAsks,
  type ScenarioKind,
} from '@ypsometer/core/judging/scenarios'
import { put, type Figure } from '@ypsometer/core/figures/figure'
import { useMemo, useState, type Dispatch, type SetStateAction } from 'react'
import { QuantityInput } from '../../fields/QuantityInput'
import { FigureView } from '../../figures/FigureView'
import { Loading } from '../../frame/States'
import { Said } from '../../tank/Balance'
import { scenarioOn } from '../../tank/scenarioOn'
import { useSimulation } from '../../workers/useLiving'
import { SeriesChart } from '../../charts'

const DAY = 86400

const WORDS: Readonly<Record<ScenarioKind, string>> = {
  nothing: 'New, not cycled, full stock',
  starter: 'New, with bottled bacteria, full stock',
  'ripe-media': 'New, with some mature media',
  beside: 'Both filters for weeks, then only this one',
  half: 'Half of the media replaced',
  tap: 'Media rinsed under the tap',
  double: 'Twice the fish',
  off: 'Power cut',
}

/** The balance in time: what happens to ammonia and nitrite when something is done to tank or filter. */
export function InTime({
  study,
  fill,
  name,
  body,
}: {
  readonly study: TankBalance
  readonly fill: JudgedFill
  readonly name: string
  /** Water its body shuts in when it stops (m³); Infinity where it shuts in none, null where nobody knows. */
  readonly body: number | null
}) {
  const [kind, setKind] = useState<ScenarioKind>(SCENARIO_KINDS[0])
  const [asks, setAsks] = useState(USUAL_ASKS)
  const fed = study.keeping.feed > 0
  const scenario = useMemo(() => scenarioOn(study, fill, kind, asks, body), [study, fill, kind, asks, body])
  const { answer, failure, busy } = useSimulation(scenario)
  return (
    <section aria-labelledby="time-title">
      <h3 id="time-title">In time</h3>
      <Asked kind={kind} setKind={setKind} asks={asks} setAsks={setAsks} />
      {!fed && <p className="muted mt-2">No feeding, so nothing to forecast.</p>}
      {failure && (
        <p role="alert" className="text-error mt-2">
          Cannot calculate this. {failure}
        </p>
      )}
      {answer ? (
        <div aria-busy={busy} className={busy ? 'opacity-60' : ''}>
          <SeriesChart
            series={[
              {
                name: 'Ammonia, as N',
                points: answer.points.map((p) => ({ time: p.day * DAY, value: p.ammonia })),
              },
              {
                name: 'Nitrite, as N',
                points: answer.points.map((p) => ({ time: p.day * DAY, value: p.nitrite })),
              },
              ...(kind === 'off'
                ? [
                    {
                      name: 'Oxygen',
                      points: answer.points.map((p) => ({ time: p.day * DAY, value: p.oxygen })),
                    },
                  ]
                : []),
            ]}
            dimension="concentration"
            label={kind === 'off' ? 'Ammonia, nitrite, oxygen' : 'Ammonia and nitrite, as N'}
            name={`${name} in time`}
            height={240}
            zero
            limits={[{ value: KIT_ZERO, label: 'a kit reads zero below' }]}
          />
          <p className="muted text-[0.88rem]">
            Steps are water changes. Bacteria grow at different speeds. Days and peaks may be off by half.
          </p>
          <Readings told={answer} off={kind === 'off'} />
          {kind === 'off' && (
            <Said
              list={stoppedBody(study, { body, hours: asks.hours, left: filmLeft(answer, asks.hours) })}
            />
          )}
        </div>
      ) : (
        fed && !failure && <Loading />
      )}
    </section>
  )
}

/** Which scenario is run, over how many weeks. */
function Asked({
  kind,
  setKind,
  asks,
  setAsks,
}: {
  readonly kind: string
  readonly setKind: Dispatch<
    SetStateAction<'nothing' | 'starter' | 'ripe-media' | 'beside' | 'half' | 'tap' | 'double' | 'off'>
  >
  readonly asks: ScenarioAsks
  readonly setAsks: Dispatch<SetStateAction<ScenarioAsks>>
}) {
  return (
    <div className="mt-1 flex flex-wrap items-baseline gap-x-4 gap-y-2">
      <label className="flex items-baseline gap-2 text-[0.92rem]">
        What happens
        <select
          className="select select-sm w-auto"
          value={kind}
          onChange={(e) => setKind(e.target.value as ScenarioKind)}
        >
          {SCENARIO_KINDS.map((k) => (
            <option key={k} value={k}>
              {WORDS[k]}
            </option>
          ))}
        </select>
      </label>
      {kind === 'beside' && (
        <span className="flex items-baseline gap-2 text-[0.92rem]">
          for weeks
          <span className="w-20">
            <QuantityInput
              label="Weeks beside each other"
              si={asks.weeks}
              dimension="ratio"
              min={1}
              max={26}
              onCommit={(weeks) => setAsks({ ...asks, weeks })}
            />
          </span>
        </span>
      )}
      {kind === 'ripe-media' && (
        <span className="w-24">
          <QuantityInput
            label="Share of mature media"
            si={asks.share}
            dimension="ratio"
            unit="%"
            min={0.01}
            max={1}
            onCommit={(share) => setAsks({ ...asks, share })}
          />
        </span>
      )}
      {kind === 'off' && (
        <span className="w-24">
          <QuantityInput
            label="Hours without power"
            si={asks.hours * 3600}
            dimension="time"
            unit="h"
            min={360}
            max={14 * DAY}
            onCommit={(s) => setAsks({ ...asks, hours: s / 3600 })}
          />
        </span>
      )}
    </div>
  )
}

/** Share of the film there was that is left as the power comes back. */
function filmLeft({ points }: Simulation, hours: number): number {
  const at = (day: number): number => points.findLast((p) => p.day <= day + 1e-9)?.films[0] ?? 0
  return at(OFF_FROM) > 0 ? at(OFF_FROM + hours / 24) / at(OFF_FROM) : 0
}

const SOURCE = 'Metcalf and Eddy (growth), Zhu and Chen 1999 (uptake); from memory'

/** Readings from the chart, as numbers with their working. */
function Readings({ told, off }: { readonly told: Simulation; readonly off: boolean }) {
  const peak = (id: string, label: string, p: Simulation['peakAmmonia']): Figure => ({
    id,
    label,
    value: p.value,
    dimension: 'concentration',
    provenance: 'computed',
    formula: 'dx/dt = x (μ S/(K + S) − b), no more than its surface holds;  uptake x · r_max S/(1.93 + S)',
    working: [put('t', 'on day', p.day * DAY, 'time', 'computed')],
    conditions: [`on day ${Math.round(p.day)}`],
    source: SOURCE,
  })
  return (
    <dl className="mt-2 flex flex-wrap gap-x-8 gap-y-2">
      <Reading
        words={`Peak ammonia, day ${Math.round(told.peakAmmonia.day)}`}
        figure={peak('peak-ammonia', 'Most ammonia, as N', told.peakAmmonia)}
      />
      <Reading
        words={`Peak nitrite, day ${Math.round(told.peakNitrite.day)}`}
        figure={peak('peak-nitrite', 'Most nitrite, as N', told.peakNitrite)}
      />
      {off && (
        <Reading words="Least oxygen" figure={peak('least-oxygen', 'Least oxygen', told.leastOxygen)} />
      )}
      <div>
        <dt className="kicker">Safe for full stock</dt>
        <dd>
          {told.safeFrom === null
            ? 'not within this time'
            : told.safeFrom === 0
              ? 'throughout'
              : `from day ${Math.ceil(told.safeFrom)}`}
        </dd>
      </div>
    </dl>
  )
}

const Reading = ({ words, figure }: { readonly words: string; readonly figure: Figure }) => (
  <div>
    <dt className="kicker">{words}</dt>
    <dd>
      <FigureView figure={figure} digits={2} />
    </dd>
  </div>
)
