import type { Dossier } from '@ypsometer/contract'
import { interiorOf } from '@ypsometer/contract/records'
import {
  compareRows,
  type ComparedCell,
  type CompareBy,
  type CompareRow,
} from '@ypsometer/core/advice/compare'
import { forTheDifference } from '@ypsometer/core/advice/difference'
import { sayPrice } from '@ypsometer/core/advice/words'
import type { Candidate } from '@ypsometer/core/advice/candidate'
import { logRank } from '@ypsometer/core/bench/holding'
import { saidText, type Figure } from '@ypsometer/core/figures/figure'
import { stockKey } from '@ypsometer/core/tanks/stock'
import { ArrowLeft, X } from 'lucide-react'
import { Fragment, useMemo, useRef } from 'react'
import { Link } from 'react-router'
import { useDossiers } from '../../api/dossier'
import { useWidth } from '../../charts/useWidth'
import { Cutaway } from '../../cutaway/Cutaway'
import { buildScene } from '../../cutaway/scene'
import { FigureView } from '../../figures/FigureView'
import { Words } from '../../figures/Words'
import { MOST_COMPARED, units } from '../../settings/settings'
import { Failed, Loading } from '../../frame/States'
import { KIND_WORDS } from '../../words'
import { Owning } from './Owning'
import { useCompared, type Compared } from './useCompared'
import { Curves } from '../../charts'
import { Heading } from '../../frame/Heading'
import { Sheet, unnamed } from '../../figures/Sheet'

/** Up to four models side by side, the first of them what the others are held against. */
export function Compare() {
  const c = useCompared()
  const { models, shelf, by, set } = c
  const system = units.use()
  const rows = useMemo(
    () =>
      by
        ? compareRows(models, by, (f: Figure) => saidText({ si: f.value, dimension: f.dimension }, system))
        : [],
    [models, by, system],
  )
  if (c.error) return <Failed error={c.error} what="your filters" retry={c.retry} />
  if (!by) return <Loading />
  const names = models.map((m) => m.name).join(', ')
  return (
    <>
      <Heading>Compare</Heading>
      <p className="muted max-w-3xl">
        Compared with the first filter. Differences smaller than the uncertainty are not marked.
      </p>
      <div className="mt-3 flex flex-wrap items-end gap-x-6 gap-y-2">
        {models.length < MOST_COMPARED && (
          <label>
            <span className="kicker block">Add a model</span>
            <select
              className="select select-sm w-auto"
              value=""
              onChange={(e) => set({ m: [...models.map((m) => m.id), e.target.value].join(',') })}
            >
              <option value="" disabled>
                Choose one
              </option>
              {shelf
                .filter((s) => !models.some((m) => m.id === s.id))
                .map((s) => (
                  <option key={s.id} value={s.id}>
                    {s.name}, {s.maker}
                  </option>
                ))}
            </select>
          </label>
        )}
        <label>
          <span className="kicker block">Stocking</span>
          <select
            className="select select-sm w-auto"
            value={stockKey(by.stock)}
            onChange={(e) => set({ stock: e.target.value })}
          >
            {c.stocks.map((s) => (
              <option key={s.id} value={stockKey(s)}>
                {s.label}
              </option>
            ))}
          </select>
        </label>
      </div>
      {models.length === 0 ? (
        <p className="mt-6 max-w-xl">
          Nothing to compare yet. Choose a model here, or tick some on the{' '}
          <Link to="/" className="link">
            shelf
          </Link>
          .
        </p>
      ) : (
        <div className="mt-5 space-y-9">
          <Table rows={rows} models={models} set={set} />
          <Differences models={models} rows={rows} by={by} />
          <section aria-labelledby="curves-title">
            <h2 id="curves-title">Head against flow</h2>
            <Curves models={models} name={`${names}, head against flow`} />
          </section>
          <Owning compared={c} by={by} name={`${names}, cost of owning`} />
          <Holding models={models} />
          <Sections models={models} />
        </div>
      )}
    </>
  )
}

interface TableProps {
  readonly rows: readonly CompareRow[]
  readonly models: readonly Candidate[]
  readonly set: Compared['set']
}

function Table({ rows, models, set }: TableProps) {
  const groups = [...new Set(rows.map((r) => r.group))]
  /** Of the models that stand in the address by then: two taps in one go both count. */
  const to = (change: (ids: readonly string[]) => readonly string[]): void =>
    set((now) => ({ m: change(now.get('m')?.split(',') ?? models.map((m) => m.id)).join(',') || null }))
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Models side by side, table">
      <Sheet
        className={`table-fixed ${models.length > 2 ? 'min-w-[44rem]' : ''}`}
        columns={[
          unnamed('What is compared', 'w-44 max-sm:w-28'),
          ...models.map((m, i) => (
            <Fragment key={m.id}>
              <Link
                to={`/models/${m.id}`}
                className="text-base-content text-[1rem] font-bold hover:underline"
              >
                {m.name}
              </Link>
              <span className="block font-normal">
                {m.maker} · {KIND_WORDS[m.kind].toLowerCase()}
              </span>
              <span className="no-print flex gap-1 pt-1">
                {i > 0 && (
                  <button
                    type="button"
                    className="btn btn-ghost btn-xs"
                    onClick={() => to((ids) => [m.id, ...ids.filter((x) => x !== m.id)])}
                  >
                    <ArrowLeft size={13} aria-hidden="true" /> Set as reference
                  </button>
                )}
                <button
                  type="button"
                  className="btn btn-ghost btn-xs btn-square"
                  aria-label={`Remove ${m.name}`}
                  onClick={() => to((ids) => ids.filter((x) => x !== m.id))}
                >
                  <X size={13} aria-hidden="true" />
                </button>
              </span>
            </Fragment>
          )),
        ]}
      >
        {groups.map((g) => (
          <Fragment key={g}>
            <tr>
              <th scope="rowgroup" colSpan={models.length + 1} className="!pt-4 first-letter:uppercase">
                {g}
              </th>
            </tr>
            {rows
              .filter((r) => r.group === g)
              .map((r) => (
                <tr key={r.id}>
                  <td>{r.label}</td>
                  {r.cells.map((cell, i) => (
                    <td key={models[i]?.id ?? i} className="align-top">
                      <Entry cell={cell} />
                    </td>
                  ))}
                </tr>
              ))}
          </Fragment>
        ))}
      </Sheet>
    </div>
  )
}

const APART_WORDS = {
  more: '▲ higher',
  less: '▼ lower',
  none: 'no difference',
} as const

function Entry({ cell }: { readonly cell: ComparedCell }) {
  const { figure, price, words, inherited, apart } = cell
  if (!figure && !price && words === null) return <span className="muted">not known</span>
  return (
    <>
      {figure && <FigureView figure={figure} inline />}
      {price && <span className="num font-medium">{sayPrice(price)}</span>}
      {words !== null && <span className="text-[0.95rem]">{words}</span>}
      {apart && (
        <span
          className={`ml-2 text-[0.82rem] whitespace-nowrap ${apart === 'none' ? 'muted' : 'font-medium'}`}
        >
          {APART_WORDS[apart]}
        </span>
      )}
      {inherited && (
        <span className="text-warning block text-[0.82rem]">
          inherited from {inherited}, not measured here
        </span>
      )}
    </>
  )
}

function Differences({
  models,
  rows,
  by,
}: {
  readonly models: readonly Candidate[]
  readonly rows: readonly CompareRow[]
  readonly by: CompareBy
}) {
  const said = models.flatMap((m, i) => {
    const sentence = forTheDifference(models, rows, i, by.prices)
    return sentence ? [{ id: m.id, sentence }] : []
  })
  if (!said.length) return null
  return (
    <section aria-labelledby="difference-title">
      <h2 id="difference-title">For the difference</h2>
      <ul className="max-w-3xl">
        {said.map((s) => (
          <li key={s.id} className="rule-b py-1.5">
            <Words sentence={s.sentence} />
          </li>
        ))}
      </ul>
    </section>
  )
}

/** Do their cups and clips hold alike? Said with how many were tried. */
function Holding({ models }: { readonly models: readonly Candidate[] }) {
  const held = models.filter((m) => m.facts.holding.length)
  if (held.length < 2) return null
  const r = logRank(held.map((m) => m.facts.holding))
  const tried = held.map((m) => `${m.name} ${m.facts.holding.length}`).join(', ')
  const p: Figure | null = r && {
    id: 'log-rank',
    label: 'Chance of such a difference by luck alone',
    value: r.p,
    dimension: 'ratio',
    unit: '%',
    provenance: 'computed',
    formula: 'χ² = (O − E)ᵀ V⁻¹ (O − E)',
    working: [
      { symbol: 'χ²', label: 'on its degrees of freedom', value: r.chiSquare, dimension: 'ratio' },
      { symbol: 'ν', label: 'degrees of freedom', value: r.degreesOfFreedom, dimension: 'ratio' },
    ],
    source: 'log-rank test, Mantel 1966',
  }
  return (
    <section aria-labelledby="holding-title">
      <h2 id="holding-title">How long cups and clips hold</h2>
      <p className="max-w-2xl">
        {p && r ? (
          <>
            {r.p < 0.05 ? 'They do not hold alike' : 'No real difference'}: so much would come by luck alone
            in <FigureView figure={p} inline />.
          </>
        ) : (
          'Nothing let go while it was watched, so nothing can be said.'
        )}{' '}
        Tried: {tried}.
      </p>
    </section>
  )
}

/** Every section at one scale. */
function Sections({ models }: { readonly models: readonly Candidate[] }) {
  const { dossiers } = useDossiers(models.map((m) => m.id))
  const root = useRef<HTMLDivElement>(null)
  const width = useWidth(root, 1000)
  const drawn = dossiers.flatMap((d: Dossier) => {
    const interior = interiorOf(d)
    return interior
      ? [{ d, interior, bounds: buildScene(d.model.kind, interior.body, interior.chambers).bounds }]
      : []
  })
  const columns = width > 700 ? drawn.length : 1
  const room = width / Math.max(1, columns) - 44
  const perMetre = Math.min(
    ...drawn.map(({ bounds: b }) => Math.min(room / (b.x1 - b.x0), 420 / (b.y1 - b.y0))),
  )
  return (
    <section aria-labelledby="sections-title" ref={root}>
      <h2 id="sections-title">Sections, at one scale</h2>
      {drawn.length === 0 ? (
        <p className="muted">The inside of one of them is not measured yet.</p>
      ) : (
        <div className={`grid items-end gap-6 ${COLUMNS[columns] ?? ''}`}>
          {drawn.map(({ d, interior }) => (
            <div key={d.model.id} className="min-w-0 self-start">
              <p className="font-medium">{d.model.name}</p>
              <Cutaway
                kind={d.model.kind}
                name={d.model.name}
                body={interior.body}
                chambers={interior.chambers}
                perMetre={perMetre}
              />
            </div>
          ))}
        </div>
      )}
    </section>
  )
}
const COLUMNS: Readonly<Record<number, string>> = {
  2: 'grid-cols-2',
  3: 'grid-cols-3',
  4: 'grid-cols-4',
}
