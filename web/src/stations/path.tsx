import type { Dossier, Fill } from '@ypsometer/contract'
import { stockKey, type StockClass } from '@ypsometer/core/tanks/stock'
import {
  fillCapacityFigure,
  pathFlowFigure,
  meetsFigure,
  unstrainedFigure,
} from '@ypsometer/core/path/figures'
import { useState } from 'react'
import { usePathWork } from '../workers/usePath'
import { Link } from 'react-router'
import { changeRow } from '../api/rows'
import { FillCutaway } from '../cutaway/FillCutaway'
import { FigureView } from '../figures/FigureView'
import { Loading } from '../frame/States'
import { useDossierContext } from '../frame/dossier'
import { Choice } from '../fields/Choice'
import { inOrder, useFillPath, type FillPath } from '../fillPath/useFillPath'
import { Budget } from '../fillPath/Budget'
import { Circuit } from '../views/path/Circuit'
import { Findings } from '../fillPath/Findings'
import { Measured } from '../views/path/Measured'
import { OnTheHoses } from '../views/path/OnTheHoses'
import { Schools } from '../views/path/Schools'
import { Shares } from '../views/path/Shares'
import { Trouble } from '../fillPath/Trouble'
import { Sheet } from '../figures/Sheet'
import type { Figure } from '@ypsometer/core/figures/figure'

/** Where the water goes: through which layer, round which, at what head, and what the order says of it. */
export default function Path() {
  const { dossier, stock: classes } = useDossierContext()
  const path = useFillPath()
  const [selected, setSelected] = useState<string | null>(null)
  const [finding, setFinding] = useState<string | null>(null)
  const { fill, outcome, answer, stock } = path
  const several = dossier.hookups.length > 1
  const { answer: outlets } = usePathWork('hookups', several ? path.asked : null, null, (w, q) =>
    w.hookups(q),
  )
  if (!fill)
    return (
      <p className="max-w-xl">
        The water’s path needs to know what is in the body.{' '}
        <Link to="../fill" className="underline">
          Add a media setup first
        </Link>
        .
      </p>
    )
  const hookup = dossier.hookups.find((h) => h.id === path.hookupId)
  const ready = answer?.kind === 'ready' ? answer : null
  return (
    <div className="flex flex-col gap-5">
      <Choices fill={fill} dossier={dossier} path={path} stock={stock} classes={classes} />
      <Trouble answer={answer} fill={fill} />
      {!outcome || !stock ? (
        answer && answer.kind !== 'ready' ? null : (
          <Loading />
        )
      ) : (
        <div className="grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,1.05fr)_minmax(0,1fr)]">
          <div className="lg:sticky lg:top-14 lg:self-start">
            <FillCutaway
              name={dossier.model.name}
              outcome={outcome}
              show="path"
              selected={selected}
              onSelect={setSelected}
              findings={ready?.findings ?? []}
              onFinding={(id) => {
                setFinding(id)
                document.getElementById(`finding-${id}`)?.scrollIntoView({ block: 'center' })
              }}
            />
          </div>
          <div className="space-y-8">
            <dl className="grid grid-cols-2 gap-x-6 gap-y-2 sm:grid-cols-4">
              {[
                pathFlowFigure(outcome),
                unstrainedFigure(outcome),
                meetsFigure(outcome),
                fillCapacityFigure(outcome, stock),
              ].map((f) => (
                <div key={f.id}>
                  <dt className="kicker">{f.label}</dt>
                  <dd>
                    <FigureView figure={f} inline />
                  </dd>
                </div>
              ))}
            </dl>
            {ready && (
              <Findings
                findings={ready.findings}
                house={path.house?.name ?? ''}
                selected={finding}
                onSelect={(f) => {
                  setFinding(f.id)
                  if (f.layerId) setSelected(f.layerId)
                }}
              />
            )}
            <Shares outcome={outcome} selected={selected} onSelect={setSelected} />
            <Budget outcome={outcome} />
            {several && outlets !== null && outlets.length > 0 && (
              <OnEachHookup outlets={outlets} dossier={dossier} />
            )}
            {ready && ready.sensitivity.length > 0 && (
              <section aria-labelledby="changes-title" className="as-needed">
                <h2 id="changes-title">What one change would give</h2>
                <Sheet>
                  {ready.sensitivity.slice(0, 12).map((s) => (
                    <tr key={s.id}>
                      <td>{s.label}</td>
                      <td className="r">
                        <FigureView figure={s.figure} inline signed digits={2} />
                      </td>
                    </tr>
                  ))}
                </Sheet>
              </section>
            )}
            <Schools path={path} fill={fill} stock={stock} />
            <Measured path={path} fill={fill} />
            {hookup && <OnTheHoses hookup={hookup} outcome={outcome} />}
            <Circuit path={path} />
          </div>
        </div>
      )}
    </div>
  )
}

/** The flow of the fill on every hookup of the model. */
function OnEachHookup({
  outlets,
  dossier,
}: {
  readonly outlets: readonly { readonly id: string; readonly figure: Figure }[]
  readonly dossier: Dossier
}) {
  return (
    <section aria-labelledby="outlets-title" className="as-needed">
      <h2 id="outlets-title">This setup on each plumbing</h2>
      <Sheet>
        {outlets.map((o) => (
          <tr key={o.id}>
            <td>{dossier.hookups.find((h) => h.id === o.id)?.name}</td>
            <td className="r">
              <FigureView figure={o.figure} inline />
            </td>
          </tr>
        ))}
      </Sheet>
    </section>
  )
}

/** Fill, hookup, class and rule that the water’s path is looked at under. */
function Choices({
  fill,
  dossier,
  path,
  stock,
  classes,
}: {
  readonly fill: Fill
  readonly dossier: Dossier
  readonly path: FillPath
  readonly stock: StockClass | undefined
  readonly classes: readonly StockClass[]
}) {
  return (
    <div className="grid gap-x-5 gap-y-2 max-lg:order-1 sm:grid-cols-4">
      <Choice
        label="Media setup"
        value={fill.id}
        options={inOrder(dossier.fills).map((f) => [f.id, f.name])}
        onChange={(id) => path.choose({ fill: id })}
      />
      <Choice
        label="Plumbing"
        value={path.hookupId ?? ''}
        options={dossier.hookups.map((h) => [h.id, h.name])}
        onChange={(id) => path.choose({ hookup: id })}
      />
      <Choice
        label="House rules for this review"
        value={path.house?.id ?? ''}
        options={path.rules.map((r) => [r.id, r.name])}
        onChange={(houseRuleId) => changeRow('models', dossier.model, { houseRuleId })}
      />
      <Choice
        label="Stocking"
        value={stock ? stockKey(stock) : ''}
        options={classes.map((s) => [stockKey(s), s.label])}
        onChange={(id) => path.choose({ stock: id })}
      />
    </div>
  )
}
