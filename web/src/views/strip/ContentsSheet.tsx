import type { ContentItem } from '@ypsometer/contract'
import { FOUND, printedItems } from '@ypsometer/core/teardown/reach'
import { X } from 'lucide-react'
import { IconButton } from '../../frame/IconButton'
import { useState } from 'react'
import { createRow } from '../../api/rows'
import { removeRow } from '../../frame/removed'
import { SelectField, TextField } from '../../fields/fields'
import { useDossierContext } from '../../frame/dossier'

const FOUND_WORDS = {
  present: 'there',
  missing: 'missing',
  extra: 'extra, not listed',
  damaged: 'damaged',
} as const

/** Contents of the box, as promised and as found. */
export function ContentsSheet() {
  const { dossier } = useDossierContext()
  const [text, setText] = useState('')
  const { contents, model } = dossier
  const sorted = [...contents].sort((a, b) => a.position - b.position)
  const printed = printedItems(dossier.claims.find((c) => c.quantity === 'contents')?.words ?? '')
  const missing = contents.filter((c) => c.found === 'missing').length
  const make = (name: string, found: ContentItem['found'], position: number): void => {
    createRow('contents', { modelId: model.id, position, name, found })
  }
  const add = (): void => {
    if (!text.trim()) return
    make(text.trim().slice(0, 80), 'extra', (sorted.at(-1)?.position ?? 0) + 1)
    setText('')
  }
  return (
    <section aria-labelledby="contents-title" className="as-needed">
      <h2 id="contents-title">What was in the box</h2>
      {contents.length === 0 && printed.length > 0 && (
        <button
          type="button"
          className="btn btn-sm mt-2"
          onClick={() => printed.forEach((n, i) => make(n.slice(0, 80), 'present', i + 1))}
        >
          Add the {printed.length} listed items
        </button>
      )}
      {contents.length === 0 && !printed.length && (
        <p className="muted">Add the listed contents in Claims first, or add what was there.</p>
      )}
      {missing > 0 && (
        <p className="text-error">
          {missing === 1 ? 'One listed item was missing.' : `${missing} listed items were missing.`}
        </p>
      )}
      <ul className="rule-t mt-2">
        {sorted.map((c) => (
          <li key={c.id} className="rule-b grid grid-cols-[minmax(0,1fr)_10rem_2rem] items-start gap-3 py-1">
            <TextField collection="contents" row={c} field="name" label="Item" hideLabel />
            <SelectField
              collection="contents"
              row={c}
              field="found"
              label={`How ${c.name} was found`}
              hideLabel
              options={FOUND.map((f) => [f, FOUND_WORDS[f]] as const)}
            />
            <IconButton
              label={`Delete ${c.name}`}
              icon={X}
              onClick={() => removeRow('contents', c, c.name)}
            />
          </li>
        ))}
      </ul>
      <label className="mt-2 flex items-end gap-2">
        <span className="sr-only">Add an unlisted item</span>
        <input
          className="field"
          placeholder="an unlisted item"
          value={text}
          maxLength={80}
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && add()}
          onBlur={add}
        />
      </label>
    </section>
  )
}
