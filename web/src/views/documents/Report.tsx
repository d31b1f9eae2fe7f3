import type { ImportReport } from '@ypsometer/contract'
import { useState } from 'react'

const MOST = 60
const STATE_WORDS = { new: 'new', same: 'there already', changed: 'changed' } as const

interface Props {
  readonly report: ImportReport
  readonly name: string
  readonly taken: boolean
}

/** What is in a document, against what is there. */
export function Report({ report: { counts, rows, refused }, name, taken }: Props) {
  const [all, setAll] = useState(false)
  if (refused.length)
    return (
      <div role="alert">
        <p className="text-error font-medium" dir="auto">
          {name} is refused; nothing was touched.
        </p>
        <table className="sheet mt-2">
          <thead>
            <tr>
              <th scope="col" className="r">
                Line
              </th>
              <th scope="col">Field</th>
              <th scope="col">What would be taken</th>
            </tr>
          </thead>
          <tbody>
            {refused.map((r, i) => (
              <tr key={i}>
                <td className="r num">{r.line ?? '–'}</td>
                <td className="num break-all">{r.field}</td>
                <td>{r.message}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    )
  const told = rows.filter((r) => r.state !== 'same')
  return (
    <div>
      <p role="status" dir="auto">
        {name}: <span className="num">{counts.new}</span> new, <span className="num">{counts.changed}</span>{' '}
        changed, <span className="num">{counts.same}</span> there already. {taken && 'Taken.'}
      </p>
      {told.length > 0 && (
        <table className="sheet mt-2">
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col">State</th>
              <th scope="col">Then, and now</th>
            </tr>
          </thead>
          <tbody>
            {told.slice(0, all ? undefined : MOST).map((r) => (
              <tr key={`${r.collection}-${r.id}`}>
                <td dir="auto" className="break-words">
                  {r.name || r.id}
                  <span className="muted block text-[0.82rem]">{r.collection}</span>
                </td>
                <td>{STATE_WORDS[r.state]}</td>
                <td className="text-[0.9rem]">
                  {r.fields.map((f) => (
                    <div key={f.field} className="break-words" dir="auto">
                      <span className="muted">{f.field}:</span> {short(f.then)} → {short(f.now)}
                    </div>
                  ))}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {told.length > MOST && !all && (
        <button type="button" className="btn btn-ghost btn-sm mt-2" onClick={() => setAll(true)}>
          All {told.length}
        </button>
      )}
    </div>
  )
}

const LETTERS = 160
/** A value in few letters. */
function short(v: unknown): string {
  const text = typeof v === 'string' ? v : JSON.stringify(v)
  if (text === '' || text === undefined) return 'empty'
  return text.length > LETTERS ? `${text.slice(0, LETTERS)} …` : text
}
