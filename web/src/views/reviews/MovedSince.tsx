import type { Moved } from '@ypsometer/core/review/moved'
import { FigureView } from '../../figures/FigureView'
import { showDay } from '../../settings/when'
import { right, Sheet } from '../../figures/Sheet'

interface Props {
  readonly since: string
  readonly items: readonly Moved[]
}

/** Numbers that would read otherwise today. */
export function MovedSince({ since, items }: Props) {
  if (!items.length)
    return (
      <p className="muted text-[0.92rem]" role="status">
        All numbers still match (since {showDay(since)}).
      </p>
    )
  return (
    <section aria-labelledby="moved-title">
      <h2 id="moved-title">Numbers changed since publication</h2>
      <p className="muted text-[0.92rem]">
        {items.length === 1 ? '1 number has' : `${items.length} numbers have`} changed since {showDay(since)}.
        The published edition keeps its own.
      </p>
      <Sheet className="mt-2" columns={['Number', right('Then'), right('Now')]}>
        {items.map((m) => (
          <tr key={m.id}>
            <td>
              {m.label}
              <span className="muted block text-[0.82rem]">{m.section}</span>
            </td>
            <td className="r">{m.then ? <FigureView figure={m.then} inline /> : '–'}</td>
            <td className="r">{m.now ? <FigureView figure={m.now} inline /> : '–'}</td>
          </tr>
        ))}
      </Sheet>
    </section>
  )
}
