import type { Fill } from '@ypsometer/contract'
import { fillCapacityFigure, jobFigure, unstrainedFigure } from '@ypsometer/core/path/figures'
import type { StockClass } from '@ypsometer/core/tanks/stock'
import { useState } from 'react'
import { createRow } from '../../api/rows'
import { FigureView } from '../../figures/FigureView'
import type { SchoolAnswer } from '../../workers/pathWork'
import type { FillPath } from '../../fillPath/useFillPath'
import { right, Sheet } from '../../figures/Sheet'
import { Explained } from '../../figures/Explained'

/** The three schools side by side: what each would find in this fill, and what its own arrangement would bring. */
export function Schools({
  path,
  fill,
  stock,
}: {
  readonly path: FillPath
  readonly fill: Fill
  readonly stock: StockClass
}) {
  const [views, setViews] = useState<readonly SchoolAnswer[] | null>(null)
  const [busy, setBusy] = useState(false)
  const run = async (): Promise<void> => {
    const { question, outcome } = path
    if (!question || !outcome) return
    setBusy(true)
    setViews(
      await path.long((w) =>
        w.schools({ ...question, fill, quick: true }, { minFlow: 0.85 * outcome.flow, maxCostMinor: null }),
      ),
    )
    setBusy(false)
  }
  return (
    <section aria-labelledby="schools-title" className="as-needed">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h2 id="schools-title">
          <Explained>Three layering rules compared</Explained>
        </h2>
        {busy ? (
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => {
              path.cancel()
              setBusy(false)
            }}
          >
            Working … stop
          </button>
        ) : (
          <button type="button" className="btn btn-sm" onClick={() => void run()}>
            {views ? 'Again' : 'Compare them'}
          </button>
        )}
      </div>
      {!views && (
        <p className="muted">
          Experts disagree on the order. Compare each rule’s findings and its best setup.
        </p>
      )}
      {views && (
        <div className="overflow-x-auto">
          <Sheet
            className="min-w-[34rem]"
            columns={[
              'Layering rule',
              right('Findings here'),
              right('Flow with its own order'),
              right('Supports'),
              right('Media'),
              right('Bypass'),
              <span className="sr-only">Keep</span>,
            ]}
          >
            {views.map((v) => (
              <tr key={v.school}>
                <td>
                  {v.name}
                  <span className="muted block text-[0.82rem]">
                    {[
                      ...new Set(
                        v.findings
                          .filter((f) => f.rule.severity !== 'note')
                          .map((f) => f.rule.title.toLowerCase()),
                      ),
                    ]
                      .slice(0, 3)
                      .join(' · ') || 'nothing grave'}
                  </span>
                </td>
                <td className="r num">{v.findings.length}</td>
                <td className="r">
                  <FigureView figure={{ ...v.flow, id: `school-${v.school}` }} inline said />
                </td>
                <td className="r">
                  <FigureView figure={fillCapacityFigure(v.fitted, stock)} inline said />
                </td>
                <td className="r">
                  <FigureView figure={jobFigure(v.fitted, 'biological')} inline said digits={2} />
                </td>
                <td className="r">
                  <FigureView figure={unstrainedFigure(v.fitted)} inline said />
                </td>
                <td className="r">
                  <button
                    type="button"
                    className="btn btn-ghost btn-xs"
                    onClick={() =>
                      path.choose({
                        fill: createRow('fills', {
                          modelId: fill.modelId,
                          name: `Fitted: ${v.name}`,
                          layers: v.layers,
                        }),
                      })
                    }
                  >
                    Keep
                  </button>
                </td>
              </tr>
            ))}
          </Sheet>
        </div>
      )}
    </section>
  )
}
