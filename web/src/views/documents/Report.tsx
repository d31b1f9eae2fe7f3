import type { ImportReport } from '@ypsometer/contract'
import { useState } from 'react'
import { fieldWords, oneOf, showField } from '../../figures/fieldWords'
import { units } from '../../settings/settings'
import { right, Sheet } from '../../figures/Sheet'

const MOST = 60
const STATE_WORDS = { new: 'new', same: 'there already', changed: 'changed' } as const

interface Props {
  readonly report: ImportReport
  readonly name: string
  readonly taken: boolean
}

type Row = ImportReport['rows'][number]
/** The fields of a row that would change, with what it holds and would hold: texts as typed tell a number. */
function changesOf({ fields }: Row) {
  const then = Object.fromEntries(fields.map((f) => [f.field, f.then]))
  const now = Object.fromEntries(fields.map((f) => [f.field, f.now]))
  return fields.filter((f) => f.field !== 'typed').map(({ field }) => ({ field, then, now }))
}

/** Content of a document against what is there. */
export function Report({ report: { counts, rows, refused }, name, taken }: Props) {
  const [all, setAll] = useState(false)
  const system = units.use()
  if (refused.length)
    return (
      <div role="alert">
        <p className="text-error font-medium" dir="auto">
          {name} is refused; nothing was touched.
        </p>
        <Sheet className="mt-2" columns={[right('Line'), 'Field', 'What would be taken']}>
          {refused.map((r, i) => (
            <tr key={i}>
              <td className="r num">{r.line ?? '–'}</td>
              <td className="num break-all">{r.field}</td>
              <td>{r.message}</td>
            </tr>
          ))}
        </Sheet>
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
        <Sheet className="mt-2" columns={['What', 'State', 'Then, and now']}>
          {told.slice(0, all ? undefined : MOST).map((r) => (
            <tr key={`${r.collection}-${r.id}`}>
              <td dir="auto" className="break-words">
                {r.name.replace(/-/g, ' ') || r.id}
                <span className="muted block text-[0.82rem]">{oneOf(r.collection)}</span>
              </td>
              <td>{STATE_WORDS[r.state]}</td>
              <td className="text-[0.9rem]">
                {changesOf(r).map(({ field, then, now }) => (
                  <div key={field} className="break-words" dir="auto">
                    <span className="muted">{fieldWords(field)}:</span>{' '}
                    {showField(r.collection, field, then, system, r.name)} →{' '}
                    {showField(r.collection, field, now, system, r.name)}
                  </div>
                ))}
              </td>
            </tr>
          ))}
        </Sheet>
      )}
      {told.length > MOST && !all && (
        <button type="button" className="btn btn-ghost btn-sm mt-2" onClick={() => setAll(true)}>
          All {told.length}
        </button>
      )}
    </div>
  )
}
