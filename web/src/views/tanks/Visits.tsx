import type { Tank } from '@ypsometer/contract'
import { Plus, Trash2 } from 'lucide-react'
import { useState } from 'react'
import { Link } from 'react-router'
import { changeRow } from '../../api/rows'
import { Parked } from '../../fields/Parked'
import { IconButton } from '../../frame/IconButton'
import { today } from '../../settings/when'

const MOST = 200

/** Advice and deeds at a tank, the newest first. */
export function Visits({ tank }: { readonly tank: Tank }) {
  const [text, setText] = useState('')
  const write = (visits: Tank['visits']): void => changeRow('tanks', tank, { visits: [...visits] })
  const add = (): void => {
    const said = text.trim()
    if (!said) return
    write([...tank.visits, { id: crypto.randomUUID().slice(0, 8), on: today(), what: 'note', text: said }])
    setText('')
  }
  return (
    <section aria-labelledby="visits-title" className="mt-9">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h2 id="visits-title">Notes and advice</h2>
        <Link to={`/advise?tank=${tank.id}`} className="link">
          Advise for this tank
        </Link>
      </div>
      <Parked row={tank} field="visits" what="Notes and advice for this tank" />
      {tank.visits.length === 0 && (
        <p className="muted">None yet. A slip kept at the counter stands here, and what you note.</p>
      )}
      <ul>
        {[...tank.visits].reverse().map((v) => (
          <li key={v.id} className="rule-b flex items-start justify-between gap-3 py-1.5">
            <details className="min-w-0">
              <summary className="cursor-pointer">
                <span className="num mr-3">{v.on}</span>
                {v.what === 'advice' ? 'Advice' : 'Note'}: {firstLine(v.text)}
              </summary>
              <p className="mt-1 max-w-prose text-[0.95rem] whitespace-pre-wrap">{v.text}</p>
            </details>
            <IconButton
              label={`Delete the note of ${v.on}`}
              icon={Trash2}
              onClick={() => write(tank.visits.filter((x) => x.id !== v.id))}
            />
          </li>
        ))}
      </ul>
      <div className="mt-2 flex items-end gap-3">
        <label className="grow">
          <span className="kicker">Note something</span>
          <input
            className="field w-full"
            value={text}
            maxLength={2000}
            onChange={(e) => setText(e.target.value)}
            onKeyDown={(e) => e.key === 'Enter' && add()}
          />
        </label>
        <button
          type="button"
          className="btn btn-sm"
          disabled={!text.trim() || tank.visits.length >= MOST}
          onClick={add}
        >
          <Plus size={16} aria-hidden="true" /> Add
        </button>
      </div>
    </section>
  )
}

/** The line that says most: of advice its heading, of a note its first. */
function firstLine(text: string): string {
  const lines = text.split('\n').filter((l) => l.trim())
  return (lines[0] === 'The tank' ? lines[2] : lines[0])?.trim() ?? ''
}
