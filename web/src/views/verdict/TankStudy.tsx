import { fittingModel, interiorOf, tankRecord, type Tank } from '@ypsometer/contract'
import { CoreError } from '@ypsometer/core/errors'
import { FILTERS } from '@ypsometer/core/kinds'
import {
  closedBodyFigure,
  fitFindings,
  redundancySentences,
  strengthOf,
  tankBalance,
  type FitFinding,
  type JudgedFill,
  type Strength,
  type TankBalance,
  type TankRecord,
} from '@ypsometer/core/judging'
import type { Figure, Sentence } from '@ypsometer/core/figures'
import { volumeAudit, weightFigure } from '@ypsometer/core/volumes'
import { lazy, Suspense, useMemo } from 'react'
import { Link, useSearchParams } from 'react-router'
import { FigureView } from '../../figures/FigureView'
import { Words } from '../../figures/Words'
import { useDossierContext } from '../../frame/dossier'
import { Loading } from '../../frame/States'
import { FitDrawing } from './FitDrawing'
import { InTime } from './InTime'

const SeriesChart = lazy(() => import('../../charts/SeriesChart'))

const TONES = { note: '', caution: 'text-warning', against: 'text-error' } as const
const TONE_WORDS = { note: 'note', caution: 'caution', against: 'against' } as const

/** One tank with this filter on it: its balance, how strong the water runs, whether it fits, what happens in time. */
export function TankStudy({ tanks }: { readonly tanks: readonly Tank[] }) {
  const { assessment, dossier, stock } = useDossierContext()
  const [params, setParams] = useSearchParams()
  const tank = tanks.find((t) => t.id === params.get('tank')) ?? tanks[0]
  const fill = assessment?.verdict.shipped ?? null
  const proposed = assessment?.verdict.proposed?.fill ?? null
  const shown = params.get('with') === 'proposed' && proposed ? proposed : fill
  if (!tank || !shown) return null
  const put = (key: string, value: string): void =>
    setParams(
      (p) => {
        p.set(key, value)
        return p
      },
      { replace: true, preventScrollReset: true },
    )
  return (
    <section aria-labelledby="study-title">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-2">
        <h2 id="study-title">In one tank</h2>
        <label className="flex items-baseline gap-2 text-[0.92rem]">
          Tank
          <select
            className="select select-sm w-auto"
            value={tank.id}
            onChange={(e) => put('tank', e.target.value)}
          >
            {tanks.map((t) => (
              <option key={t.id} value={t.id}>
                {t.name}
              </option>
            ))}
          </select>
        </label>
        {proposed && (
          <label className="flex items-baseline gap-2 text-[0.92rem]">
            With
            <select
              className="select select-sm w-auto"
              value={shown === proposed ? 'proposed' : 'shipped'}
              onChange={(e) => put('with', e.target.value)}
            >
              <option value="shipped">{fill?.fill.name}</option>
              <option value="proposed">{proposed.fill.name}</option>
            </select>
          </label>
        )}
        <Link to={`/tanks/${tank.id}`} className="link text-[0.92rem]">
          Change how it is kept
        </Link>
      </div>
      <Studied key={tank.id} tank={tank} fill={shown} name={dossier.model.name} classes={stock} />
    </section>
  )
}

type Read = { readonly record: TankRecord } | { readonly problem: string }

function readTank(tank: Tank, classes: Parameters<typeof Studied>[0]['classes']): Read {
  const found = classes.find((s) => s.id === tank.stockClassId)
  if (!found) return { problem: 'The stock class of this tank was removed: choose another on its own page.' }
  try {
    return { record: tankRecord(tank, found) }
  } catch (error) {
    if (error instanceof CoreError) return { problem: `Its sizes do not fit together. ${error.message}` }
    throw error
  }
}

function Studied({
  tank,
  fill,
  name,
  classes,
}: {
  readonly tank: Tank
  readonly fill: JudgedFill
  readonly name: string
  readonly classes: ReturnType<typeof useDossierContext>['stock']
}) {
  const { dossier } = useDossierContext()
  const read = useMemo(() => readTank(tank, classes), [tank, classes])
  const found = useMemo(() => {
    if ('problem' in read) return read
    const { record } = read
    try {
      const interior = interiorOf(dossier)
      const gross = interior ? volumeAudit(interior.chambers, interior.body).water : null
      const weight = interior && gross !== null ? weightFigure(interior.body, gross) : null
      const water = gross === null ? null : bodyWaterFigure(interior?.body.waterFill ?? null, gross)
      const fitting = fittingModel(dossier, weight, water)
      const fitted = dossier.hookups[0]?.fitted
      const usual = fill.outlet
        ? [{ id: 'usual', name: OUTLET_WORDS[fill.outlet.kind], outlet: fill.outlet }]
        : []
      const outlets = fitted?.outlets?.map((o) => ({ id: o.id, name: o.name, outlet: o })) ?? usual
      return {
        record,
        fitting,
        findings: fitting ? fitFindings(record, fitting) : [],
        balance: tankBalance(record, fill),
        strength: strengthOf(
          record,
          fill.flow,
          outlets,
          fitted?.inlet ?? null,
          FILTERS[dossier.model.kind].intake,
        ),
        bodyWater:
          FILTERS[dossier.model.kind].circuit === 'closed' ? (interior?.body.waterFill ?? gross) : null,
      }
    } catch (error) {
      if (error instanceof CoreError) return { problem: `It cannot be worked out. ${error.message}` }
      throw error
    }
  }, [read, dossier, fill])
  if ('problem' in found)
    return (
      <p role="alert" className="text-error mt-2">
        {found.problem}
      </p>
    )
  const { record, fitting, findings, balance, strength, bodyWater } = found
  return (
    <div className="mt-3 grid gap-x-10 gap-y-8 lg:grid-cols-2">
      {balance ? (
        <Balance study={balance} bodyWater={bodyWater}>
          <Said list={redundancySentences(record, fill, balance)} />
        </Balance>
      ) : (
        <p className="max-w-md">
          No balance yet: nobody has said what is in it.{' '}
          <Link to="../fill" className="link">
            Lay in its media
          </Link>
          , and it follows.
        </p>
      )}
      <Along strength={strength} tank={record} name={name} />
      {balance && fill.films && <InTime study={balance} fill={fill} name={`${name}, ${tank.name}`} />}
      <section aria-labelledby="fit-title">
        <h3 id="fit-title">Does it fit?</h3>
        {fitting ? (
          <>
            <FitDrawing tank={record} model={fitting} findings={findings} />
            <Findings findings={findings} />
          </>
        ) : (
          <p>
            Measure the body under{' '}
            <Link to="../inside" className="link">
              Inside
            </Link>{' '}
            first.
          </p>
        )}
      </section>
    </div>
  )
}

const OUTLET_WORDS = {
  nozzle: 'Open end or nozzle',
  'spray-bar': 'Spray bar',
  lip: 'Lip',
  airlift: 'Riser',
} as const

function Balance({
  study,
  bodyWater,
  children,
}: {
  readonly study: TankBalance
  readonly bodyWater: number | null
  readonly children: React.ReactNode
}) {
  const closed = closedBodyFigure(study, bodyWater)
  return (
    <section aria-labelledby="balance-title">
      <h3 id="balance-title">Its balance, at rest</h3>
      <table className="sheet mt-1">
        <tbody>
          {study.lines.map(({ figure, limit }) => (
            <tr key={figure.id}>
              <td>
                {figure.label}
                {limit && <span className="muted block text-[0.82rem]">{limit.words}</span>}
              </td>
              <td className={`r ${limit && !limit.met ? 'text-error font-medium' : ''}`}>
                {Number.isFinite(figure.value) ? <FigureView figure={figure} inline /> : 'without end'}
                {limit && !limit.met && <span className="block text-[0.8rem]">over the limit</span>}
              </td>
            </tr>
          ))}
          {closed && (
            <tr>
              <td>{closed.label}</td>
              <td className="r">
                <FigureView figure={closed} inline />
              </td>
            </tr>
          )}
        </tbody>
      </table>
      <Said list={study.sentences} />
      {children}
    </section>
  )
}

/** Water a body holds: by weight where it was weighed, else by its chambers. */
const bodyWaterFigure = (filled: number | null, gross: number): Figure => ({
  id: 'body-water',
  label: 'Water in the body',
  value: filled ?? gross,
  dimension: 'volume',
  provenance: filled === null ? 'computed' : 'measured',
})

/** Speed along the tank by each outlet, against what its stock bears. */
function Along({
  strength,
  tank,
  name,
}: {
  readonly strength: Strength
  readonly tank: TankRecord
  readonly name: string
}) {
  const { outlets, best } = strength
  return (
    <section aria-labelledby="strength-title">
      <h3 id="strength-title">How strong it runs</h3>
      {outlets.length === 0 ? (
        <p className="muted">No water comes through it.</p>
      ) : (
        <>
          <Suspense fallback={<Loading />}>
            <SeriesChart
              series={outlets.map((o) => ({
                name: o.name,
                points: o.curve.map((p) => ({ time: p.x, value: p.speed })),
              }))}
              dimension="velocity"
              unit="cm/s"
              label="Speed of the jet"
              over="Distance from the outlet"
              name={`${name}, ${tank.name}, strength`}
              height={220}
              zero
              limits={[{ value: tank.stock.strongestCurrent, label: 'the most they bear' }]}
            />
          </Suspense>
          <table className="sheet mt-2">
            <thead>
              <tr>
                <th scope="col">Outlet</th>
                <th scope="col" className="r">
                  Too fast over
                </th>
                <th scope="col" className="r">
                  Gentle from
                </th>
                <th scope="col">Surface</th>
              </tr>
            </thead>
            <tbody>
              {outlets.map((o) => (
                <tr key={o.id}>
                  <td className={o === best ? 'font-medium' : ''}>
                    {o.name}
                    {o === best && <span className="kicker ml-2">fits best</span>}
                  </td>
                  <td
                    className={`r ${TONES[o.level === 'strong' ? 'against' : o.level === 'borderline' ? 'caution' : 'note']}`}
                  >
                    <FigureView figure={o.share} bare />
                  </td>
                  <td className="r">
                    <FigureView figure={o.gentle} bare />
                  </td>
                  <td>{o.stirs ? 'stirred' : 'left still'}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      <Said list={strength.sentences} />
    </section>
  )
}

function Said({
  list,
}: {
  readonly list: readonly { readonly tone: keyof typeof TONES; readonly sentence: Sentence }[]
}) {
  return (
    <ul className="mt-2 max-w-prose">
      {list.map((s, i) => (
        <li key={i} className="rule-b grid grid-cols-[4.6rem_minmax(0,1fr)] gap-x-3 py-1.5 text-[0.95rem]">
          <span className={`kicker pt-0.5 ${TONES[s.tone]}`}>{TONE_WORDS[s.tone]}</span>
          <p>
            <Words sentence={s.sentence} />
          </p>
        </li>
      ))}
    </ul>
  )
}

const LEVEL_WORDS = { stop: 'does not fit', caution: 'caution', ok: 'fits', unknown: 'not known' } as const
const ORDER = ['stop', 'caution', 'unknown', 'ok'] as const

function Findings({ findings }: { readonly findings: readonly FitFinding[] }) {
  const sorted = [...findings].sort((a, b) => ORDER.indexOf(a.level) - ORDER.indexOf(b.level))
  return (
    <ul className="mt-1 max-w-prose">
      {sorted.map((f) => (
        <li key={f.id} className="rule-b grid grid-cols-[6rem_minmax(0,1fr)] gap-x-3 py-1.5 text-[0.95rem]">
          <span
            className={`kicker pt-0.5 ${f.level === 'stop' ? '!text-error' : f.level === 'caution' ? '!text-warning' : ''}`}
          >
            {LEVEL_WORDS[f.level]}
          </span>
          <p>
            <Words sentence={f.sentence} />
          </p>
        </li>
      ))}
    </ul>
  )
}
