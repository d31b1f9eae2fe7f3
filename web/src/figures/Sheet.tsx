import type { ReactNode } from 'react'

interface Styled {
  readonly label: ReactNode
  readonly className?: string
  /** Its name for those who do not see it, where it is not written. */
  readonly name?: string
}
/** Head of a column: its name, and how it stands. */
type Column = ReactNode | Styled
const isStyled = (c: Column): c is Styled => typeof c === 'object' && c !== null && 'label' in c

/** A column of numbers: its name stands on the right, as they do. */
export const right = (label: ReactNode, className = ''): Column => ({ label, className: `r ${className}` })
/** A column whose name is not written. */
export const unnamed = (name: string, className = ''): Column => ({ label: null, name, className })

interface Props {
  readonly columns?: readonly Column[]
  readonly className?: string
  readonly title?: ReactNode
  readonly foot?: ReactNode
  /** Its children are bodies of the table themselves, not rows of one. */
  readonly bodies?: boolean
  /** Of how many rows it is, where not all of them are on the page. */
  readonly rowCount?: number
  readonly headClassName?: string
  readonly children: ReactNode
}

/** A sheet of figures: a head over columns, rows of cells below it. */
export function Sheet({
  columns,
  className = '',
  title,
  foot,
  bodies,
  rowCount,
  headClassName,
  children,
}: Props) {
  return (
    <table
      className={`sheet ${className}`}
      {...(rowCount !== undefined && { role: 'table', 'aria-rowcount': rowCount })}
    >
      {title && <caption className="kicker text-left">{title}</caption>}
      {columns && (
        <thead className={headClassName}>
          <tr>
            {columns.map((c, i) =>
              isStyled(c) ? (
                <th key={i} scope="col" className={c.className}>
                  {c.name ? <span className="sr-only">{c.name}</span> : c.label}
                </th>
              ) : (
                <th key={i} scope="col">
                  {c}
                </th>
              ),
            )}
          </tr>
        </thead>
      )}
      {bodies ? children : <tbody>{children}</tbody>}
      {foot && <tfoot>{foot}</tfoot>}
    </table>
  )
}
