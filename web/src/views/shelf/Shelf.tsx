import type { ShelfRow } from '@ypsometer/contract'
import { Plus, Split } from 'lucide-react'
import { lazy, Suspense, useDeferredValue, useState } from 'react'
import { retryWhenBack } from '../../api/retryWhenBack'
import { Link, useSearchParams } from 'react-router'
import { shelfFilter, useShelf } from '../../api/shelf'
import { FigureView } from '../../figures/FigureView'
import { compareTray, MOST_COMPARED } from '../../settings/settings'
import { Failed, Loading } from '../../frame/States'
import { GAP_IDS, GAPS } from '@ypsometer/core/judging/gaps'
import { isFirm } from '@ypsometer/core/judging/basis'
import { KIND_OPTIONS, KIND_WORDS, LEVEL_WORDS } from '../../words'
import { MiniRuler, RulerHead } from './MiniRuler'
import { Heading } from '../../frame/Heading'
import { right, Sheet, unnamed } from '../../figures/Sheet'
import { Explained } from '../../figures/Explained'

const NewModel = lazy(() => retryWhenBack(() => import('./NewModel')))

/** All models: what each claims, what the bench supports, what is still to do. */
export function Shelf() {
  const [params, setParams] = useSearchParams()
  const [adding, setAdding] = useState(false)
  const { search, kind, sort, stands, missing } = shelfFilter(params)
  const query = useShelf({ search: useDeferredValue(search), kind, sort, stands, missing })
  const set = (name: string, value: string): void =>
    setParams(
      (old) => {
        const next = new URLSearchParams(old)
        if (value) next.set(name, value)
        else next.delete(name)
        return next
      },
      { replace: true },
    )
  const rows = query.data?.pages.flatMap((p) => p.items) ?? []
  const total = query.data?.pages[0]?.total ?? 0
  return (
    <>
      <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-3">
        <div>
          <Heading>Shelf</Heading>
          <p className="muted">
            Every filter you test: what the label <Explained>claims</Explained>, and what your tests{' '}
            <Explained>support</Explained>.
          </p>
        </div>
        <span className="flex flex-wrap items-center gap-x-5 gap-y-2">
          <Link to="/documents" className="link">
            Import and export
          </Link>
          <button type="button" className="btn btn-primary" onClick={() => setAdding(true)}>
            <Plus size={18} aria-hidden="true" /> New model
          </button>
        </span>
      </div>
      <div className="mt-4 flex flex-wrap gap-x-6 gap-y-2" role="search">
        <label className="w-full max-w-xs">
          <span className="kicker block">Search maker or model</span>
          <input type="search" className="field" value={search} onChange={(e) => set('q', e.target.value)} />
        </label>
        <label>
          <span className="kicker block">Kind</span>
          <select className="field !w-auto" value={kind} onChange={(e) => set('kind', e.target.value)}>
            <option value="">All kinds</option>
            {KIND_OPTIONS.map(([v, l]) => (
              <option key={v} value={v}>
                {l}
              </option>
            ))}
          </select>
        </label>
        <label>
          <span className="kicker block">Sort by</span>
          <select
            className="field !w-auto"
            value={sort}
            onChange={(e) => set('sort', e.target.value === 'name' ? '' : e.target.value)}
          >
            <option value="name">Name</option>
            <option value="updated">Last edited</option>
            <option value="rated-flow">Rated flow</option>
            <option value="claim">Claim ratio</option>
          </select>
        </label>
        <label>
          <span className="kicker block">Rules</span>
          <select className="field !w-auto" value={stands} onChange={(e) => set('stands', e.target.value)}>
            <option value="">Agreed or split</option>
            <option value="split">Split only</option>
            <option value="agreed">Agreed only</option>
          </select>
        </label>
        <label>
          <span className="kicker block">Missing</span>
          <select className="field !w-auto" value={missing} onChange={(e) => set('missing', e.target.value)}>
            <option value="">Anything or nothing</option>
            {GAP_IDS.map((id) => (
              <option key={id} value={id}>
                {GAPS[id].what}
              </option>
            ))}
          </select>
        </label>
      </div>
      {query.isPending && <Loading />}
      {query.isError && <Failed error={query.error} what="the shelf" retry={() => void query.refetch()} />}
      {query.data && !rows.length && (
        <Empty filtered={Boolean(search || kind || stands || missing)} onAdd={() => setAdding(true)} />
      )}
      {rows.length > 0 && <ShelfTable rows={rows} />}
      {query.hasNextPage && (
        <button
          type="button"
          className="btn btn-sm mt-4"
          disabled={query.isFetchingNextPage}
          onClick={() => void query.fetchNextPage()}
        >
          {query.isFetchingNextPage ? 'Loading …' : `More (${rows.length} of ${total} shown)`}
        </button>
      )}
      {adding && (
        <Suspense fallback={null}>
          <NewModel onClose={() => setAdding(false)} />
        </Suspense>
      )}
    </>
  )
}

function Empty({ filtered, onAdd }: { readonly filtered: boolean; readonly onAdd: () => void }) {
  return (
    <div className="border-base-300 mt-6 max-w-xl border-l-4 pl-4">
      {filtered ? (
        <p>No filter matches. Clear the search to see all.</p>
      ) : (
        <>
          <p>No filters yet. Copy the label of your first one: your tests will be compared with it.</p>
          <button type="button" className="btn btn-primary btn-sm mt-3" onClick={onAdd}>
            Add your first filter
          </button>
        </>
      )}
    </div>
  )
}

function ShelfTable({ rows }: { readonly rows: readonly ShelfRow[] }) {
  const span = rulerSpan(rows)
  const some = rows.some((r) => r.next !== null)
  return (
    <Sheet
      className="mt-5"
      columns={[
        unnamed('Compare', 'max-sm:hidden'),
        'Model',
        right('Rated flow', 'max-sm:hidden'),
        right(<Explained>Installed flow</Explained>),
        { label: <RulerHead span={span} />, className: 'pl-6 max-md:hidden' },
        'Claim',
        ...(some ? [{ label: 'Next', className: 'max-lg:hidden' }] : []),
      ]}
    >
      {rows.map((r) => (
        <Row key={r.model.id} row={r} span={span} lacking={some} />
      ))}
    </Sheet>
  )
}

/** Puts a model by to be compared, or takes it out again; above the row’s own link. */
function PutBy({ id, name }: { readonly id: string; readonly name: string }) {
  const list = compareTray.use()
  const on = list.some((m) => m.id === id)
  return (
    <input
      type="checkbox"
      className="checkbox relative z-10"
      aria-label={`Compare ${name}`}
      checked={on}
      disabled={!on && list.length >= MOST_COMPARED}
      onChange={() => compareTray.set(on ? list.filter((m) => m.id !== id) : [...list, { id, name }])}
    />
  )
}

/** The word for a claim, hedged where its flow is not a finding and where its interval reaches another level. */
function claimWords({ level, basis, borderline }: ShelfRow): string {
  if (level === 'open' || (isFirm(basis) && !borderline)) return LEVEL_WORDS[level]
  return `probably ${LEVEL_WORDS[level]}`
}

function Row({
  row: r,
  span,
  lacking,
}: {
  readonly row: ShelfRow
  readonly span: readonly [number, number]
  readonly lacking: boolean
}) {
  const bad = r.level === 'overclaimed' || r.level === 'far-overclaimed'
  return (
    <tr className="hover:bg-base-200 relative">
      <td className="w-8 max-sm:hidden">
        <PutBy id={r.model.id} name={r.model.name} />
      </td>
      <td>
        <Link to={`/models/${r.model.id}`} className="font-bold after:absolute after:inset-0">
          {r.model.name}
        </Link>
        <div className="muted text-[0.88rem]">
          {r.model.maker} · {KIND_WORDS[r.model.kind]}
        </div>
        {r.old && <div className="muted text-[0.88rem]">Recalculating …</div>}
        {r.problem && <div className="text-error text-[0.88rem]">Cannot calculate: {r.problem}</div>}
      </td>
      <td className="r max-sm:hidden">
        {r.ratedFlow ? <FigureView figure={r.ratedFlow} inline /> : <span className="muted">–</span>}
      </td>
      <td className="r">
        {r.flow === null ? (
          <span className="muted">not tested yet</span>
        ) : (
          <FigureView figure={r.flow} className="flex-col !items-end" />
        )}
      </td>
      <td className="pl-6 max-md:hidden">
        <MiniRuler row={r} span={span} />
      </td>
      <td className="whitespace-nowrap">
        {r.split ? (
          <span className="inline-flex items-center gap-1.5 font-medium" title={r.split}>
            <Split size={15} aria-hidden="true" className="text-warning" />
            split
            <span className="sr-only">: {r.split}</span>
          </span>
        ) : (
          <span className={bad ? 'text-error font-medium' : ''}>{claimWords(r)}</span>
        )}
        {r.overclaim && (
          <div className="muted num text-[0.88rem]">
            × <FigureView figure={r.overclaim} inline />
          </div>
        )}
      </td>
      {lacking && <td className="muted max-lg:hidden">{r.next}</td>}
    </tr>
  )
}

/** One scale for all rows of the page, so that they can be compared by eye. */
function rulerSpan(rows: readonly ShelfRow[]): readonly [number, number] {
  const all = rows.flatMap((r) => [r.claimedMax?.value ?? 0, r.supportedMax?.value ?? 0]).filter((v) => v > 0)
  return all.length ? [Math.min(...all) * 0.5, Math.max(...all) * 1.2] : [0.01, 1]
}
