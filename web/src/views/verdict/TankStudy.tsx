import type { Tank } from '@ypsometer/contract'
import { fittingOf, outletsOf } from '@ypsometer/contract/candidate'
import { mainHookup } from '@ypsometer/contract/records'
import { CoreError } from '@ypsometer/core/errors/errors'
import { FILTERS } from '@ypsometer/core/kinds/filters'
import { fitFindings, type FitFinding } from '@ypsometer/core/judging/fitting'
import { redundancySentences } from '@ypsometer/core/judging/redundancy'
import { strengthOf, type Strength } from '@ypsometer/core/judging/strength'
import { tankBalance } from '@ypsometer/core/judging/tankBalance'
import { together } from '@ypsometer/core/judging/together'
import type { JudgedFill } from '@ypsometer/core/judging/fills'
import type { TankRecord } from '@ypsometer/core/tanks/tankRecord'
import { useMemo } from 'react'
import { Link, useSearchParams } from 'react-router'
import { useCandidates, useLabelBias } from '../../api/shelf'
import { FigureView } from '../../figures/FigureView'
import { Words } from '../../figures/Words'
import { useDossierContext } from '../../frame/dossier'
import { Balance, Said, TONES } from '../../tank/Balance'
import { readTank } from '../../tank/readTank'
import { knownOf } from '../../tank/running'
import { FitDrawing } from './FitDrawing'
import { waterShutIn } from '../../tank/scenarioOn'
import { InTime } from './InTime'
import { SeriesChart } from '../../charts'
import { right, Sheet } from '../../figures/Sheet'

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
    <section aria-labelledby="study-title" className="as-needed">
      <div className="flex flex-wrap items-baseline gap-x-6 gap-y-2">
        <h2 id="study-title">In detail: one tank</h2>
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
  const { dossier, assessment } = useDossierContext()
  const claimedMax = assessment?.verdict.claimedRange.max ?? null
  const read = useMemo(() => readTank(tank, classes), [tank, classes])
  const found = useMemo(() => {
    if ('problem' in read) return read
    const { record } = read
    try {
      const fitting = fittingOf(dossier)
      return {
        record,
        fitting,
        findings: fitting ? fitFindings(record, fitting) : [],
        balance: tankBalance(record, fill),
        strength: strengthOf(
          record,
          fill.flow,
          outletsOf(dossier, fill),
          mainHookup(dossier)?.fitted.inlet ?? null,
          FILTERS[dossier.model.kind].intake,
        ),
        body: waterShutIn(dossier, fitting),
      }
    } catch (error) {
      if (error instanceof CoreError) return { problem: `Cannot calculate. ${error.message}` }
      throw error
    }
  }, [read, dossier, fill])
  if ('problem' in found)
    return (
      <p role="alert" className="text-error mt-2">
        {found.problem}
      </p>
    )
  const { record, fitting, findings, balance, strength, body } = found
  return (
    <div className="mt-3 grid gap-x-10 gap-y-8 lg:grid-cols-2">
      {balance ? (
        <Balance study={balance} body={body}>
          <Said list={redundancySentences(record, fill, balance, claimedMax)} />
        </Balance>
      ) : (
        <p className="max-w-md">
          No forecast yet. Its media are unknown.{' '}
          <Link to="../fill" className="link">
            Add its media
          </Link>
          , and it follows.
        </p>
      )}
      <Along strength={strength} tank={record} name={name} />
      <Beside tank={tank} record={record} fill={fill} name={name} />
      {balance && fill.films && (
        <InTime study={balance} fill={fill} name={`${name}, ${tank.name}`} body={body} />
      )}
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

/** This filter beside what already runs on the tank; nothing where nothing else does. */
function Beside({
  tank,
  record,
  fill,
  name,
}: {
  readonly tank: Tank
  readonly record: TankRecord
  readonly fill: JudgedFill
  readonly name: string
}) {
  const { dossier } = useDossierContext()
  const { data } = useCandidates()
  const { data: bias } = useLabelBias()
  const result = useMemo(() => {
    const at = tank.filters.findIndex((f) => f.modelId === dossier.model.id)
    const others = tank.filters
      .filter((_, i) => i !== at)
      .flatMap((f) => knownOf(f, data ?? [], bias ?? null).running ?? [])
    return others.length ? { others, all: together(record, [{ name, fill }, ...others]) } : null
  }, [tank, record, fill, name, data, bias, dossier.model.id])
  if (!result?.all) return null
  return (
    <section aria-labelledby="beside-title">
      <h3 id="beside-title">Beside {result.others.map((o) => o.name).join(' and ')}, on this tank already</h3>
      <Said list={result.all.sentences} />
    </section>
  )
}

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
          <Sheet
            className="mt-2"
            columns={['Outlet', right('Too fast over'), right('Gentle from'), 'Surface']}
          >
            {outlets.map((o) => (
              <tr key={o.id}>
                <td className={o.id === best?.id ? 'font-medium' : ''}>
                  {o.name}
                  {o.id === best?.id && <span className="kicker ml-2">fits best</span>}
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
          </Sheet>
        </>
      )}
      <Said list={strength.sentences} />
    </section>
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
