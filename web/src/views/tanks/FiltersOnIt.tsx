import type { Tank, TankFilter } from '@ypsometer/contract'
import { tankRecord } from '@ypsometer/contract/records'
import { CoreError } from '@ypsometer/core/errors/errors'
import { together, type Together } from '@ypsometer/core/judging/together'
import type { StockClass } from '@ypsometer/core/tanks/stock'
import { Plus, Trash2 } from 'lucide-react'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { useCandidates, useLabelBias } from '../../api/shelf'
import { changeRow } from '../../api/rows'
import { Parked } from '../../fields/Parked'
import { QuantityInput } from '../../fields/QuantityInput'
import { FigureView } from '../../figures/FigureView'
import { IconButton } from '../../frame/IconButton'
import { Failed, Loading } from '../../frame/States'
import { Balance, Said } from '../../tank/Balance'
import { knownOf, type KnownFilter as Known } from '../../tank/running'
import { KIND_OPTIONS } from '../../words'
import { right, Sheet } from '../../figures/Sheet'

const MOST = 12
const newFilter = (more: Partial<TankFilter>): TankFilter => ({
  id: crypto.randomUUID().slice(0, 8),
  modelId: null,
  fill: 'as-shipped',
  label: '',
  kind: null,
  ratedFlow: null,
  since: null,
  ...more,
})

/** The filters that run on a tank, what they come to together, and what is left with one of them open. */
export function FiltersOnIt({ tank, stock }: { readonly tank: Tank; readonly stock: readonly StockClass[] }) {
  const { data, error, isPending, refetch } = useCandidates()
  const { data: bias } = useLabelBias()
  const known = useMemo(
    () => tank.filters.map((f) => knownOf(f, data ?? [], bias ?? null)),
    [tank.filters, data, bias],
  )
  const result = useMemo(() => workedOut(tank, stock, known), [tank, stock, known])
  const write = (filters: readonly TankFilter[]): void => changeRow('tanks', tank, { filters })
  const set = (f: TankFilter, more: Partial<TankFilter>): void =>
    write(tank.filters.map((x) => (x.id === f.id ? { ...x, ...more } : x)))
  const full = tank.filters.length >= MOST
  const shelf = (data ?? [])
    .flatMap((d) => (d.candidate ? [d.candidate] : []))
    .sort((a, b) => a.name.localeCompare(b.name))
  return (
    <section aria-labelledby="on-it-title" className="mt-9">
      <h2 id="on-it-title">Filters on it</h2>
      <Parked row={tank} field="filters" what="The filters on this tank" />
      {isPending && <Loading />}
      {error && !data && <Failed error={error} what="the models of the shelf" retry={() => void refetch()} />}
      {tank.filters.length === 0 && (
        <p className="muted max-w-xl">
          None added. Add the filters on this tank to see what they support together and alone.
        </p>
      )}
      {tank.filters.length > 0 && (
        <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Filters on it, table">
          <Sheet className="mt-1 min-w-[38rem]" columns={['Filter', 'With', 'Since', right('Flow'), '']}>
            {known.map((k) => (
              <Row
                key={k.filter.id}
                known={k}
                set={(more) => set(k.filter, more)}
                remove={() => write(tank.filters.filter((x) => x.id !== k.filter.id))}
              />
            ))}
          </Sheet>
        </div>
      )}
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <select
          className="select select-sm w-auto max-w-full"
          aria-label="Add one of your filters"
          value=""
          disabled={full || !shelf.length}
          onChange={(e) => write([...tank.filters, newFilter({ modelId: e.target.value })])}
        >
          <option value="" disabled>
            Add one of your filters
          </option>
          {shelf.map((c) => (
            <option key={c.id} value={c.id}>
              {c.name}, {c.maker}
            </option>
          ))}
        </select>
        <button
          type="button"
          className="btn btn-sm"
          disabled={full}
          onClick={() =>
            write([
              ...tank.filters,
              newFilter({ label: 'Another filter', kind: 'canister', ratedFlow: 800 / 3.6e6 }),
            ])
          }
        >
          <Plus size={16} aria-hidden="true" /> Other filter (not tested here)
        </button>
      </div>
      {typeof result === 'string' && (
        <p role="alert" className="text-error mt-2">
          {result}
        </p>
      )}
      {result && typeof result !== 'string' && <Result result={result} />}
    </section>
  )
}

function Result({ result }: { readonly result: Together }) {
  return (
    <div className="mt-4 grid gap-x-10 gap-y-6 lg:grid-cols-2">
      <section aria-labelledby="together-title">
        <h3 id="together-title">{result.each.length > 1 ? 'Together, and with one open' : 'Supports'}</h3>
        {result.carries && (
          <p className="mt-1">
            <FigureView figure={result.carries} />
          </p>
        )}
        <Said list={result.sentences} />
      </section>
      {result.balance && <Balance study={result.balance} body={null} />}
    </div>
  )
}

interface RowProps {
  readonly known: Known
  readonly set: (more: Partial<TankFilter>) => void
  readonly remove: () => void
}

function Row({ known: { filter: f, candidate, running }, set, remove }: RowProps) {
  const name = candidate?.name ?? f.label
  return (
    <tr>
      <td>
        {f.modelId ? (
          candidate ? (
            <Link to={`/models/${f.modelId}`} className="link">
              {candidate.name}
            </Link>
          ) : (
            <span className="muted">a filter that was deleted</span>
          )
        ) : (
          <span className="flex flex-wrap gap-2">
            <input
              className="field w-44"
              aria-label="What it is called"
              maxLength={80}
              defaultValue={f.label}
              onBlur={(e) => e.target.value.trim() !== f.label && set({ label: e.target.value.trim() })}
            />
            <select
              className="field w-36"
              aria-label={`${name}: kind`}
              value={f.kind ?? 'canister'}
              onChange={(e) => set({ kind: e.target.value as NonNullable<TankFilter['kind']> })}
            >
              {KIND_OPTIONS.map(([k, words]) => (
                <option key={k} value={k}>
                  {words}
                </option>
              ))}
            </select>
          </span>
        )}
      </td>
      <td>
        {candidate?.proposed ? (
          <select
            className="field w-36"
            aria-label={`${name}: with`}
            value={f.fill}
            onChange={(e) => set({ fill: e.target.value as TankFilter['fill'] })}
          >
            <option value="as-shipped">as shipped</option>
            <option value="proposed">as proposed</option>
          </select>
        ) : (
          <span className="muted">{f.modelId ? 'supplied media' : 'not known'}</span>
        )}
      </td>
      <td>
        <input
          type="date"
          className="field w-36"
          aria-label={`${name}: since`}
          defaultValue={f.since ?? ''}
          onBlur={(e) => (e.target.value || null) !== f.since && set({ since: e.target.value || null })}
        />
      </td>
      <td className="r">
        {f.modelId ? (
          running && <FigureView figure={running.fill.flow} inline />
        ) : (
          <span className="flex items-baseline justify-end gap-2">
            rated
            <span className="w-28">
              <QuantityInput
                label={`${name}: rated flow`}
                si={f.ratedFlow ?? 0}
                dimension="flow"
                min={0}
                max={0.05}
                onCommit={(ratedFlow) => set({ ratedFlow })}
              />
            </span>
          </span>
        )}
      </td>
      <td>
        <IconButton label={`Remove ${name || 'this filter'}`} icon={Trash2} onClick={remove} />
      </td>
    </tr>
  )
}

function workedOut(
  tank: Tank,
  stock: readonly StockClass[],
  known: readonly Known[],
): Together | string | null {
  const found = stock.find((s) => s.id === tank.stockClassId)
  const running = known.flatMap((k) => (k.running ? [k.running] : []))
  if (!found || !running.length) return null
  try {
    return together(tankRecord(tank, found), running)
  } catch (error) {
    if (error instanceof CoreError) return `Cannot calculate: ${error.message}`
    throw error
  }
}
