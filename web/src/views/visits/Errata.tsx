import { Plus, Trash2 } from 'lucide-react'
import { useState } from 'react'
import { changeRow } from '../../api/rows'
import { Parked } from '../../fields/Parked'
import { useDossierContext } from '../../frame/dossier'
import { IconButton } from '../../frame/IconButton'
import { showDay, today } from '../../settings/when'

/** A missing part or a figure that was found wrong later: dated, kept, and what hangs on it is provisional. */
export function Errata() {
  const { dossier } = useDossierContext()
  const { model } = dossier
  const [about, setAbout] = useState('')
  const [text, setText] = useState('')
  const add = (): void => {
    if (!about.trim() || !text.trim()) return
    const one = {
      id: crypto.randomUUID().slice(0, 8),
      on: today(),
      about: about.trim(),
      text: text.trim(),
    }
    changeRow('models', model, { errata: [...model.errata, one] })
    setAbout('')
    setText('')
  }
  return (
    <section aria-labelledby="errata-title" className="as-needed">
      <h2 id="errata-title">Corrections</h2>
      <Parked row={model} field="errata" what="The corrections" />
      <p className="muted max-w-3xl">
        Missing parts or corrected measurements. Each is dated and marks the verdict “provisional”.
      </p>
      <ul className="mt-1 max-w-3xl">
        {model.errata.map((e) => (
          <li key={e.id} className="rule-b flex items-start justify-between gap-3 py-1.5">
            <span>
              <span className="num muted mr-3">{showDay(e.on)}</span>
              <span className="font-medium">{e.about}</span>: {e.text}
            </span>
            <IconButton
              label={`Delete the correction about ${e.about}`}
              icon={Trash2}
              onClick={() =>
                changeRow('models', model, { errata: model.errata.filter((x) => x.id !== e.id) })
              }
            />
          </li>
        ))}
      </ul>
      <div className="mt-2 flex max-w-3xl flex-wrap items-end gap-3">
        <label>
          <span className="kicker block">What was wrong</span>
          <input className="field" value={about} maxLength={120} onChange={(e) => setAbout(e.target.value)} />
        </label>
        <label className="min-w-56 flex-1">
          <span className="kicker block">What is right</span>
          <input
            className="field"
            value={text}
            maxLength={2000}
            onChange={(e) => setText(e.target.value)}
            onKeyDown={(e) => e.key === 'Enter' && add()}
          />
        </label>
        <button type="button" className="btn btn-sm" disabled={!about.trim() || !text.trim()} onClick={add}>
          <Plus size={16} aria-hidden="true" /> Add
        </button>
      </div>
    </section>
  )
}
