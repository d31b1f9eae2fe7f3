import { chamberRecord } from '@ypsometer/contract/records'
import type { Drawing } from '@ypsometer/contract/review'
import type { Block, SheetCell, Length } from '@ypsometer/core/review/blocks'
import { Cutaway } from '../cutaway/Cutaway'
import { FigureView } from '../figures/FigureView'
import { pointed } from '../figures/pointed'
import { Words } from '../figures/Words'
import { decimal } from '../settings/settings'
import { piecesOf, type Piece, type ReviewDoc } from './document'
import { bothText } from './text'
import { Heading } from '../frame/Heading'
import { Sheet } from '../figures/Sheet'

interface Props {
  readonly doc: ReviewDoc
  readonly length: Length
  readonly drawing: Drawing | null
  readonly photo: (id: string) => string
}

/** A review as it is read. Its numbers are those of its snapshot; nothing is worked out here. */
export const SheetView = ({ doc, length, drawing, photo }: Props) => (
  <article className={`sheet-review sheet-${length}`} aria-label="Review">
    {piecesOf(doc, length).map((p, i) => (
      <PieceView key={i} piece={p} drawing={drawing} photo={photo} />
    ))}
  </article>
)

type PieceProps = { readonly piece: Piece } & Pick<Props, 'drawing' | 'photo'>

function PieceView({ piece: p, drawing, photo }: PieceProps) {
  switch (p.kind) {
    case 'title':
      return (
        <header>
          <p className="kicker" dir="auto">
            {p.kicker}
          </p>
          <Heading dir="auto">{p.title}</Heading>
          <p className="muted">{p.sub}</p>
        </header>
      )
    case 'disclosure':
      return (
        <aside className={`mt-3 border px-3 py-2 ${p.beholden ? 'border-warning' : 'border-base-content'}`}>
          <strong className={p.beholden ? 'text-warning' : ''}>Disclosure.</strong> {p.text}
        </aside>
      )
    case 'erratum':
      return (
        <aside role="note" className="border-error text-error mt-3 border-l-4 pl-3" dir="auto">
          {p.text}
        </aside>
      )
    case 'words':
      return (
        <p className="mt-2 whitespace-pre-wrap" dir="auto">
          {p.text}
        </p>
      )
    case 'heading':
      return <h2 className="mt-6">{p.text}</h2>
    case 'block':
      return <BlockView block={p.block} drawing={drawing} photo={photo} />
    case 'buy':
      return (
        <section className="mt-6">
          <h2>{p.answer}</h2>
          {p.why && (
            <p className="whitespace-pre-wrap" dir="auto">
              {p.why}
            </p>
          )}
        </section>
      )
    case 'foot':
      return <p className="muted rule-t mt-8 pt-2 text-[0.88rem]">{p.text}</p>
  }
}

const TONES = { for: '', note: '', caution: 'text-warning', against: 'text-error' } as const

function BlockView({
  block: b,
  drawing,
  photo,
}: { readonly block: Block } & Pick<Props, 'drawing' | 'photo'>) {
  switch (b.kind) {
    case 'text':
      return (
        <p className={`mt-1 ${TONES[b.tone]}`} dir="auto">
          <Words sentence={b.sentence} />
        </p>
      )
    case 'numbers':
      return (
        <dl className="mt-2 flex flex-wrap gap-x-9 gap-y-2">
          {b.figures.map((f) => (
            <div key={f.id}>
              <dt className="kicker">{f.label}</dt>
              <dd className="text-[1.15rem]">
                <FigureView figure={f} />
              </dd>
            </div>
          ))}
        </dl>
      )
    case 'table':
      return <TableView head={b.head} rows={b.rows} both={b.both === true} />
    case 'drawing':
      return drawing && <DrawingView drawing={drawing} />
    case 'photos':
      return (
        <div className="mt-3 grid gap-3 sm:grid-cols-2">
          {b.photos.map((p) => (
            <figure key={p.id}>
              <img
                src={photo(p.id)}
                alt={p.caption}
                width={p.width}
                height={p.height}
                loading="lazy"
                className="h-auto max-w-full"
              />
              <figcaption className="muted text-[0.88rem]" dir="auto">
                {p.caption}
              </figcaption>
            </figure>
          ))}
        </div>
      )
  }
}

interface TableProps {
  readonly head: readonly string[]
  readonly rows: readonly (readonly SheetCell[])[]
  readonly both: boolean
}

const TableView = ({ head, rows, both }: TableProps) => (
  <div
    className="mt-2 overflow-x-auto"
    tabIndex={0}
    role="region"
    aria-label={head.filter(Boolean).join(', ') || 'Table'}
  >
    <Sheet {...(head.some(Boolean) && { columns: head })}>
      {rows.map((r, i) => (
        <tr key={i}>
          {r.map((c, j) => (
            <td key={j} dir="auto">
              <CellView cell={c} both={both} />
            </td>
          ))}
        </tr>
      ))}
    </Sheet>
  </div>
)

function CellView({ cell, both }: { readonly cell: SheetCell; readonly both: boolean }) {
  const sign = decimal.use()
  if (cell === null) return <span className="muted">–</span>
  if (typeof cell === 'string') return pointed(cell, sign)
  if (both) return <span className="num">{bothText(cell, { decimal: sign })}</span>
  return <FigureView figure={cell} inline />
}

function DrawingView({ drawing }: { readonly drawing: Drawing }) {
  const { kind, name, bodies, chambers, litres } = drawing
  const body = bodies.at(-1)
  if (!body) return null
  return (
    <figure className="mt-3" data-review-drawing>
      <Cutaway
        kind={kind}
        name={name}
        body={body}
        chambers={[...chambers].sort((a, b) => a.position - b.position).map(chamberRecord)}
        litresOf={litres}
        plain
      />
      <figcaption className="muted text-[0.88rem]">Section, to scale</figcaption>
    </figure>
  )
}
