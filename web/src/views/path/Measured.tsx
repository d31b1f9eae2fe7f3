import type { Fill } from '@ypsometer/contract'
import { put, type Figure } from '@ypsometer/core/figures/figure'
import type { BenchCalibration } from '@ypsometer/core/path/rest'
import { useState } from 'react'
import { usePathWork } from '../../workers/usePath'
import { Link } from 'react-router'
import { changeRow, createRow } from '../../api/rows'
import { FigureView } from '../../figures/FigureView'
import { Num } from '../../figures/Num'
import type { CalibrationAnswer, TrialCheck } from '../../workers/pathWork'
import { useDossierContext } from '../../frame/dossier'
import { Choice } from '../../fields/Choice'
import { writeLayers } from '../../fillPath/layerEdits'
import type { FillPath } from '../../fillPath/useFillPath'
import { right, Sheet } from '../../figures/Sheet'

/**
 * Each loaded trial as the path computes it beside what the bucket said, and a medium calibrated from two of them.
 */
export function Measured({ path, fill }: { readonly path: FillPath; readonly fill: Fill }) {
  const { answer: rows } = usePathWork('checks', path.asked, null, (w, q) => w.checks(q))
  if (!rows?.length)
    return (
      <p className="muted">
        No installed-flow test names its media setup. Choose the setup in a test to check it here.
      </p>
    )
  return (
    <section aria-labelledby="measured-title" className="as-needed">
      <h2 id="measured-title">Calculated vs measured</h2>
      <Sheet columns={['Test', right('computed'), right('measured')]}>
        {rows.map((r) => {
          const apart = Math.abs(r.computed.value - r.measured.value)
          const far = apart > Math.hypot(r.computed.uncertainty ?? 0, r.measured.uncertainty ?? 0)
          return (
            <tr key={r.trialId}>
              <td>
                <Link to={`../bench/${r.trialId}`} className="hover:underline">
                  {r.fill}
                </Link>
                <span className="muted" data-plain>
                  {' '}
                  at <Num si={r.lift} dimension="head" digits={2} />
                </span>
                <span className="muted block text-[0.82rem]">
                  {r.told
                    ? 'tells the body loss, so it agrees by construction'
                    : far
                      ? 'outside both intervals: a medium or a gap is not as recorded'
                      : 'agrees within both intervals'}
                </span>
              </td>
              <td className="r">
                <FigureView figure={r.computed} inline />
              </td>
              <td className="r">
                <FigureView figure={r.measured} inline />
              </td>
            </tr>
          )
        })}
      </Sheet>
      {rows.length > 1 && <Calibrate path={path} fill={fill} rows={rows} />}
    </section>
  )
}

const scaled = (k: number): number => k * 1e9

function Calibrate({
  path,
  fill,
  rows,
}: {
  readonly path: FillPath
  readonly fill: Fill
  readonly rows: readonly TrialCheck[]
}) {
  const { dossier } = useDossierContext()
  const media = (path.media ?? []).filter((m) => fill.layers.some((l) => l.mediumId === m.id))
  const [mediumId, setMedium] = useState('')
  const [without, setWithout] = useState('')
  const [withIt, setWith] = useState('')
  const [answer, setAnswer] = useState<CalibrationAnswer | null>(null)
  const holds = (name: string): boolean =>
    dossier.fills.find((f) => f.name === name)?.layers.some((l) => l.mediumId === chosen) ?? false
  const chosen = mediumId || (media.find((m) => m.job === 'fine') ?? media[0])?.id || ''
  const label = (r: TrialCheck): readonly [string, string] => [
    r.trialId,
    `${r.fill}, ${Math.round(r.lift * 100)} cm`,
  ]
  const lacking = rows.filter((r) => !holds(r.fill))
  const having = rows.filter((r) => holds(r.fill))
  const a = without || lacking[0]?.trialId || ''
  const b = withIt || having[0]?.trialId || ''
  const medium = media.find((m) => m.id === chosen)
  const keep = (r: BenchCalibration): void => {
    if (!medium) return
    const k = {
      permeability: r.permeability,
      permeabilityLow: r.interval[0],
      permeabilityHigh: r.interval[1],
      inertia: r.inertia,
    }
    if (!medium.generic) return changeRow('media', medium, k)
    const {
      id: _id,
      version: _v,
      createdAt: _c,
      updatedAt: _u,
      deletedAt: _d,
      generic: _g,
      ...columns
    } = medium
    const id = createRow('media', {
      ...columns,
      ...k,
      name: `${medium.name}, calibrated on ${dossier.model.name}`.slice(0, 80),
      source: `calibrated with ${dossier.model.name}`,
    })
    for (const f of dossier.fills)
      if (f.layers.some((l) => l.mediumId === medium.id))
        writeLayers(
          f,
          f.layers.map((l) => (l.mediumId === medium.id ? { ...l, mediumId: id } : l)),
        )
    setAnswer(null)
  }
  return (
    <div className="mt-4">
      <h3>Calibrate a medium</h3>
      <p className="muted text-[0.92rem]">
        Two flows, one without the medium and one with it, tell its permeability; gaps and weirs are counted.
      </p>
      <div className="mt-1 grid gap-x-5 gap-y-2 sm:grid-cols-3">
        <Choice
          label="Medium"
          value={chosen}
          options={media.map((m) => [m.id, m.name])}
          onChange={setMedium}
        />
        <Choice label="Flow without it" value={a} options={lacking.map(label)} onChange={setWithout} />
        <Choice label="Flow with it" value={b} options={having.map(label)} onChange={setWith} />
      </div>
      <button
        type="button"
        className="btn btn-sm mt-2"
        disabled={!a || !b || !chosen}
        onClick={() =>
          void path.ask<CalibrationAnswer>(async (w) => w.calibrate(chosen, a, b)).then(setAnswer)
        }
      >
        Solve its permeability
      </button>
      <div aria-live="polite">
        {answer?.kind === 'wrong' && <p className="text-error mt-1">{answer.message}</p>}
        {answer?.kind === 'ready' && (
          <div className="border-primary mt-2 border-l-2 pl-3">
            <p>
              k = <FigureView figure={calibrated(answer.result, medium?.name ?? '')} inline said /> · 10⁻⁹ m²
              {answer.result.model !== null && (
                <>
                  ; the model says{' '}
                  <FigureView figure={modelled(answer.result, medium?.name ?? '')} inline said digits={2} /> ·
                  10⁻⁹ m²
                </>
              )}
              .
            </p>
            <button type="button" className="btn btn-primary btn-sm mt-1" onClick={() => keep(answer.result)}>
              Keep it in the library
            </button>
          </div>
        )}
      </div>
    </div>
  )
}

const calibrated = (r: BenchCalibration, name: string): Figure => ({
  id: 'calibrated',
  label: `Permeability of ${name.toLowerCase()}, 10⁻⁹ m²`,
  value: scaled(r.permeability),
  uncertainty: scaled((r.interval[1] - r.interval[0]) / 2),
  dimension: 'ratio',
  provenance: 'measured',
  formula: 'k such that Q(with) is the measured flow;  range from both flows, on ln k',
  working: [
    put('low', 'lower end, 95 %', scaled(r.interval[0])),
    put('high', 'upper end, 95 %', scaled(r.interval[1])),
    put('C', 'inertial coefficient taken (1/m)', r.inertia),
  ],
  source: 'Darcy–Forchheimer in the network; GUM, JCGM 100:2008',
})
const modelled = (r: BenchCalibration, name: string): Figure => ({
  id: 'modelled',
  label: `Permeability of ${name.toLowerCase()} by its model, 10⁻⁹ m²`,
  value: scaled(r.model ?? 0),
  dimension: 'ratio',
  provenance: 'computed',
  formula: 'from its form: Ergun, Davies or the foam table',
})
