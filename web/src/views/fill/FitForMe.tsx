import type { Fill } from '@ypsometer/contract'
import { FORECAST_DAYS } from '@ypsometer/contract/clog'
import type { TankRecord } from '@ypsometer/core/tanks/tankRecord'
import type { Dirtied } from '@ypsometer/core/path/optimise'
import { Wand2 } from 'lucide-react'
import { useState, type Dispatch, type SetStateAction } from 'react'
import { createRow } from '../../api/rows'
import { readMoney, showMoney } from '../../fields/MoneyField'
import { QuantityInput } from '../../fields/QuantityInput'
import { FigureView } from '../../figures/FigureView'
import { Words } from '../../figures/Words'
import type { FitAnswer } from '../../workers/pathWork'
import type { FillPath } from '../../fillPath/useFillPath'

interface Props {
  readonly path: FillPath
  readonly fill: Fill
  /** The tank whose dirt it is judged with. */
  readonly tank: TankRecord | null
  readonly onMade: (id: string) => void
}

/** Share of the present flow that must be left (common practice, no source). */
const LEFT = 0.85

/**
 * The best arrangement under the house rule, within limits of flow and price; kept as a variant, never laid over the
 * fill.
 */
export function FitForMe({ path, fill, tank, onMade }: Props) {
  const flow = path.outcome?.flow ?? 0
  const [share, setShare] = useState(LEFT)
  const [price, setPrice] = useState('')
  const [busy, setBusy] = useState(false)
  const [found, setFound] = useState<FitAnswer | null>(null)
  const money = price.trim() ? readMoney(price, 'EUR') : null
  const run = async (): Promise<void> => {
    const { question } = path
    if (!question || typeof money === 'string') return
    setBusy(true)
    setFound(null)
    const answer = await path.long((w) =>
      w.fit(
        { ...question, fill, quick: true },
        { minFlow: share * flow, maxCostMinor: money?.minor ?? null },
        tank && { tank, days: FORECAST_DAYS, sponge: false },
      ),
    )
    setBusy(false)
    setFound(answer)
  }
  return (
    <section aria-labelledby="fit-title" className="as-needed">
      <h2 id="fit-title">Find the best setup</h2>
      <p className="muted text-[0.92rem]">
        Tries every pad and whole-pack combination that “{path.house?.name}” allows. Keeps the one that
        supports the largest tank, with the dirt of {tank?.name ?? 'a tank'} in it.
      </p>
      <div className="mt-1 flex flex-wrap items-end gap-x-5 gap-y-2">
        <div className="w-36">
          <span className="kicker">Keep at least this share of the flow</span>
          <QuantityInput
            label="Share of the present flow to keep"
            si={share}
            dimension="ratio"
            unit="%"
            min={0}
            max={1}
            onCommit={setShare}
          />
        </div>
        <div className="w-36">
          <label className="kicker" htmlFor="fit-price">
            Media budget
          </label>
          <input
            id="fit-price"
            className="field num"
            placeholder="any price"
            value={price}
            aria-invalid={typeof money === 'string' ? true : undefined}
            onChange={(e) => setPrice(e.target.value)}
          />
        </div>
        {busy ? (
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => {
              path.cancel()
              setBusy(false)
            }}
          >
            Searching … stop
          </button>
        ) : (
          <button type="button" className="btn btn-sm" onClick={() => void run()}>
            <Wand2 size={16} aria-hidden="true" /> Fit it
          </button>
        )}
      </div>
      {typeof money === 'string' && (
        <p role="alert" className="text-error text-[0.9rem]">
          {money}
        </p>
      )}
      <div aria-live="polite">
        {found && !found.better && (
          <p className="mt-2">
            <span className="num">{found.tried}</span> combinations tried: none is better than this one.
          </p>
        )}
        {found?.better && (
          <BestFound found={found} onMade={onMade} fill={fill} path={path} setFound={setFound} />
        )}
      </div>
    </section>
  )
}

const dueWords = (d: Dirtied): string =>
  d.days === null ? 'no cleaning within a year' : `clean after ${Math.round(d.days)} days`

/** The best arrangement that was found, and how it differs. */
function BestFound({
  found,
  onMade,
  fill,
  path,
  setFound,
}: {
  readonly found: FitAnswer
  readonly onMade: (id: string) => void
  readonly fill: Fill
  readonly path: FillPath
  readonly setFound: Dispatch<SetStateAction<FitAnswer | null>>
}) {
  return (
    <div className="border-primary mt-2 border-l-2 pl-3">
      <p>
        <span className="num">{found.tried}</span> combinations tried. The best supports{' '}
        <FigureView figure={found.carries} inline said /> at <FigureView figure={found.flow} inline said />
        {found.cost.currency && (
          <>
            , with media for{' '}
            <span className="num font-medium">{showMoney(found.cost.now, found.cost.currency)}</span> (now{' '}
            <span className="num">{showMoney(found.cost.before, found.cost.currency)}</span>)
          </>
        )}
        .
      </p>
      {found.dirt.best && <p>{lastsWords(found.dirt.best, found.dirt.start)}</p>}
      <ul className="mt-1 list-disc pl-5">
        {found.changes.map((s, i) => (
          <li key={i}>
            <Words sentence={s} />
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="btn btn-primary btn-sm mt-2"
        onClick={() => {
          onMade(
            createRow('fills', {
              modelId: fill.modelId,
              name: `Best setup: ${path.house?.name ?? ''}`.slice(0, 80),
              layers: found.layers,
            }),
          )
          setFound(null)
        }}
      >
        Save as a variant
      </button>
    </div>
  )
}

/** How long it runs, beside the fill as it is, and how much of the dirt its media get. */
function lastsWords(best: Dirtied, start: Dirtied | null): string {
  const before = start ? ` (now ${dueWords(start)})` : ''
  const media = `${(best.toMedia * 100).toFixed(best.toMedia < 0.1 ? 1 : 0)} % of the dirt reaches its bio media`
  return `Forecast: ${dueWords(best)}${before}; ${media}.`
}
