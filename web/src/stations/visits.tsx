import type { Visit } from '@ypsometer/contract'
import { FORECAST_DAYS } from '@ypsometer/contract/clog'
import { balanceOn, testedLines } from '@ypsometer/core/clogging/living'
import {
  dueFigures,
  hazeFigure,
  leftFigure,
  unstrainedFigure,
  surfaceLeft,
  toMediaFigure,
} from '@ypsometer/core/clogging/report'
import { clogSentences, seasonSentences } from '@ypsometer/core/clogging/forecastWords'
import type { Belief } from '@ypsometer/core/clogging/learn'
import { saidText } from '@ypsometer/core/figures/figure'
import { showPercent } from '@ypsometer/core/units/format'
import type { Dimension } from '@ypsometer/core/units/dimensions'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { createRow } from '../api/rows'
import { FillCutaway } from '../cutaway/FillCutaway'
import { Choice } from '../fields/Choice'
import { FigureView } from '../figures/FigureView'
import { Words } from '../figures/Words'
import { useDossierContext } from '../frame/dossier'
import { Loading } from '../frame/States'
import { units } from '../settings/settings'
import { today } from '../settings/when'
import { DaySlider } from '../fillPath/DaySlider'
import { Trouble } from '../fillPath/Trouble'
import { inOrder } from '../fillPath/useFillPath'
import { AgedParts } from '../views/visits/AgedParts'
import { Errata } from '../views/visits/Errata'
import { Proof } from '../views/visits/Proof'
import { SchoolTable } from '../views/visits/SchoolTable'
import { SetUps } from '../views/visits/SetUps'
import { UsedUnit } from '../views/visits/UsedUnit'
import { useSeason, type Season } from '../fillPath/useSeason'
import { VisitList } from '../views/visits/VisitList'
import { Constants } from '../views/visits/Constants'
import { FlowLeftChart } from '../charts'
import { right, Sheet } from '../figures/Sheet'
import { Explained } from '../figures/Explained'

/** Coming back: how the filter fouls on its tank, what visits found, and what the two make of each other. */
export default function Visits() {
  const { dossier } = useDossierContext()
  const season = useSeason()
  const navigate = useNavigate()
  const { path, tanks, tank, history, sponge } = season
  const begin = (): void => {
    const id = createRow('visits', {
      modelId: dossier.model.id,
      on: today(),
      tankId: tank?.id ?? null,
      specimenId: dossier.specimens.at(-1)?.id ?? null,
      fillId: path.fill?.id ?? null,
      stage: history.visits.length ? 'visit' : 'set-up',
    } satisfies Partial<Visit> & { modelId: string; on: string })
    void navigate(`/models/${dossier.model.id}/visits/${id}/run`)
  }
  if (season.pending) return <Loading />
  return (
    <div className="space-y-9">
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
        <div className="min-w-56 flex-1">
          <Choice
            label="In the tank"
            value={tank?.id ?? 'none'}
            options={[
              ...tanks.map((t) => [t.id, t.name] as const),
              ['none', 'a typical one of its supported size'] as const,
            ]}
            onChange={(id) => path.choose({ tank: id })}
          />
        </div>
        <div className="min-w-44 flex-1">
          <Choice
            label="Media setup"
            value={path.fill?.id ?? ''}
            options={inOrder(dossier.fills).map((f) => [f.id, f.name])}
            onChange={(id) => path.choose({ fill: id })}
          />
        </div>
        <label className="flex min-h-10 items-center gap-2">
          <input
            type="checkbox"
            className="checkbox"
            checked={sponge}
            onChange={(e) => path.choose({ sponge: e.target.checked ? '1' : '0' })}
          />
          Pre-filter sponge on the intake
        </label>
        <button type="button" className="btn btn-primary" onClick={begin}>
          {history.visits.length ? 'Record a check-up' : 'Start long-term test'}
        </button>
      </div>
      <Forecast season={season} />
      <VisitList season={season} />
      <SetUps tankId={tank?.id ?? null} />
      <AgedParts />
      <Proof season={season} />
      <UsedUnit />
      <Errata />
      <Constants />
    </div>
  )
}

/** About what a forecast takes: the visits below it stay where they are when it comes. */
const ROOM = 'min-h-272 max-sm:min-h-630'

function Forecast({ season }: { readonly season: Season }) {
  const { dossier } = useDossierContext()
  const { answer, failure, busy, path, record, tank } = season
  const [day, setDay] = useState(90)
  const [selected, setSelected] = useState<string | null>(null)
  if (failure) return <p role="alert">{failure} Add the inside, a media setup and a pump first.</p>
  if (!path.fill) return <p className="max-w-xl">Add a media setup first: it decides where dirt collects.</p>
  if (path.answer?.kind === 'wrong') return <Trouble answer={path.answer} fill={path.fill} />
  if (!answer || !path.outcome)
    return (
      <div className={ROOM}>
        <Loading />
      </div>
    )
  const { run, slow, fast, alone, asShipped, seen, prior, posterior } = answer
  const due = dueFigures(answer, alone.answers)
  const then = alone.days[Math.min(day, alone.days.length - 1)]
  const surface = surfaceLeft(path.outcome, alone, day)
  const { ammonia } = record ? testedLines(balanceOn(record, path.outcome, alone, day)) : {}
  return (
    <div
      className={`grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,1.05fr)_minmax(0,1fr)] ${busy ? 'opacity-60' : ''}`}
      aria-busy={busy}
    >
      <section aria-labelledby="forecast-title" className="min-w-0">
        <h2 id="forecast-title">
          <Explained>Clogging forecast</Explained>
        </h2>
        <p className="muted">
          On {tank ? tank.name : 'a tank of its supported size'}
          {record && <>, fed {record.feed === null ? 'typically' : 'noted'}</>}.
        </p>
        <ul className="mt-2 max-w-3xl space-y-1">
          {clogSentences(alone, due).map((s, i) => (
            <li key={i}>
              <Words sentence={s} />
            </li>
          ))}
        </ul>
        <div className="mt-3">
          <FlowLeftChart
            name={dossier.model.name}
            run={run}
            slow={slow}
            fast={fast}
            alone={alone}
            asShipped={seen.length ? asShipped : null}
            seen={seen}
            until={FORECAST_DAYS}
            day={day}
          />
        </div>
        {seen.length > 0 && <Learnt prior={prior} posterior={posterior} n={seen.length} />}
        <h3 className="mt-5">Layering rules on this tank</h3>
        {seasonSentences(answer.schools).map((s, i) => (
          <p key={i} className="mt-1 max-w-3xl">
            <Words sentence={s} />
          </p>
        ))}
        <SchoolTable schools={answer.schools} />
      </section>
      <section aria-labelledby="where-title" className="min-w-0">
        <h2 id="where-title">Where dirt collects without cleaning</h2>
        <DaySlider day={day} until={FORECAST_DAYS} onDay={setDay} />
        <div className="mt-2">
          <FillCutaway
            name={dossier.model.name}
            outcome={path.outcome}
            show="fill"
            selected={selected}
            onSelect={setSelected}
            dirt={{ run: alone, day }}
          />
        </div>
        <dl className="mt-3 grid grid-cols-2 gap-x-6 gap-y-2">
          {[
            leftFigure(alone, day),
            toMediaFigure(alone),
            ...(then ? [unstrainedFigure(then), hazeFigure(then)] : []),
            ...(surface ? [surface] : []),
            ...(ammonia ? [{ ...ammonia, label: `${ammonia.label}, after ${day} days` }] : []),
          ].map((f) => (
            <div key={f.id}>
              <dt className="kicker">{f.label}</dt>
              <dd>
                <FigureView figure={f} inline />
              </dd>
            </div>
          ))}
        </dl>
        <LayerTable season={season} day={day} />
      </section>
    </div>
  )
}

/** Learning of the forecast from visits, in one sentence with its numbers. */
function Learnt({
  prior,
  posterior,
  n,
}: {
  readonly prior: Belief
  readonly posterior: Belief
  readonly n: number
}) {
  const times = (x: number): string => Math.exp(x).toFixed(2)
  return (
    <p className="mt-2 max-w-3xl text-[0.95rem]">
      Expected clogging speed: {times(prior.mean)} times the assumed one ({times(prior.low)} to{' '}
      {times(prior.high)}). With {n} {n === 1 ? 'flow' : 'flows'} seen:{' '}
      <span className="num font-medium">{times(posterior.mean)}</span> times ({times(posterior.low)} to{' '}
      {times(posterior.high)}).{' '}
      {posterior.low > 0 || posterior.high < 0
        ? `It clogs ${posterior.mean > 0 ? 'faster' : 'slower'} than expected.`
        : 'The forecast was right.'}
    </p>
  )
}

interface SaidProps {
  readonly si: number
  readonly dimension: Dimension
  readonly unit: string
  /** Below this it is as good as none. */
  readonly least: number
}

/** A number of the forecast’s table in the reader’s units. */
function Said({ si, dimension, unit, least }: SaidProps) {
  const system = units.use()
  if (si < least) return <span className="muted">–</span>
  return <span className="num">{saidText({ si, dimension, digits: 2, unit }, system)}</span>
}

function LayerTable({ season, day }: { readonly season: Season; readonly day: number }) {
  const { answer } = season
  if (!answer) return null
  const { alone: run } = answer
  const then = run.days[Math.min(day, run.days.length - 1)]
  return (
    <Sheet
      className="mt-3"
      columns={['Layer', right('Dirt, dry'), right('Full'), right('Permeability left'), right('Head')]}
    >
      {run.layers.map((l, i) => {
        const at = then?.layers[i]
        return (
          <tr key={l.id}>
            <td>
              {l.label}
              {l.counts && <span className="muted text-[0.85rem]"> · biological</span>}
            </td>
            <td className="r">
              <Said si={at?.held ?? 0} dimension="mass" unit="g" least={1e-5} />
            </td>
            <td className="r num">{showPercent(at?.full ?? 0)}</td>
            <td className="r num">{showPercent(at?.keeps ?? 1)}</td>
            <td className="r">
              <Said si={at?.head ?? 0} dimension="head" unit="cm" least={1e-4} />
            </td>
          </tr>
        )
      })}
    </Sheet>
  )
}
