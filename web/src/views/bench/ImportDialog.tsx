import type { ImportRequest, Trial } from '@ypsometer/contract'
import { Upload, X } from 'lucide-react'
import {
  useDeferredValue,
  useEffect,
  useId,
  useMemo,
  useRef,
  useState,
  type SetStateAction,
  type Dispatch,
} from 'react'
import { ApiProblem, Unreachable } from '../../api/client'
import { importAll } from '../../api/dossier'
import { guessMapping, takeTable, unitsOf, type Mapping, type Taken, type Target } from '../../csv/mapping'
import { readTable, type Table } from '@ypsometer/contract/csv'
import { toast } from '../../frame/toastStore'
import { useDossierContext } from '../../frame/dossier'
import { importBody, targetsFor, type Importable } from './importBody'
import { Sheet } from '../../figures/Sheet'

const MAX_FILE = 5 * 1024 * 1024
const PREVIEW = 6
const LISTED = 12
const DELIMITERS: Readonly<Record<string, string>> = {
  ',': 'comma',
  ';': 'semicolon',
  '\t': 'tab',
  '|': 'bar',
}

/** Paste or read a table of runs, curve points, dye or a log: columns mapped on screen, all rows or none. */
export default function ImportDialog({
  trial = null,
  onClose,
}: {
  readonly trial?: Trial | null
  readonly onClose: () => void
}) {
  const { dossier } = useDossierContext()
  const dialog = useRef<HTMLDialogElement>(null)
  const id = useId()
  const allowed = targetsFor(trial?.kind ?? null)
  const [targetId, setTargetId] = useState(allowed[0]?.id ?? '')
  const [text, setText] = useState('')
  const [chosen, setChosen] = useState<{ readonly of: string; readonly mapping: Mapping } | null>(null)
  const [error, setError] = useState('')
  const [busy, setBusy] = useState(false)
  /** The import sent last: the same text tried again after a lost answer is the same import under the same key. */
  const sent = useRef<{ readonly of: string; readonly key: string; readonly body: ImportRequest } | null>(
    null,
  )
  useEffect(() => dialog.current?.showModal(), [])
  const target = allowed.find((t) => t.id === targetId) ?? allowed[0]
  const deferred = useDeferredValue(text)
  const table = useMemo(() => (deferred.trim() ? readTable(deferred) : null), [deferred])
  // A choice of columns belongs to a shape of table; another shape is guessed anew.
  const shape = `${targetId}|${table?.delimiter}|${table?.header?.join('|')}|${table?.rows[0]?.cells.length}`
  const mapping = useMemo(
    () => (chosen?.of === shape ? chosen.mapping : table && target ? guessMapping(table, target) : []),
    [chosen, shape, table, target],
  )
  const taken = useMemo(
    () => (table && target ? takeTable(table, mapping, target) : null),
    [table, mapping, target],
  )
  if (!target) return null
  const set = (i: number, value: Mapping[number]): void =>
    setChosen({ of: shape, mapping: mapping.map((m, k) => (k === i ? value : m)) })
  const read = async (file: File | undefined): Promise<void> => {
    if (!file) return
    if (file.size > MAX_FILE)
      return setError(`${file.name} has ${(file.size / 1e6).toFixed(1)} MB; at most 5 MB are read.`)
    setError('')
    setText(await file.text())
  }
  const ready = taken && !taken.problem && !taken.bad.length && taken.rows.length > 0
  const submit = async (): Promise<void> => {
    if (!ready || busy) return
    setBusy(true)
    setError('')
    const of = `${shape}\n${text}`
    if (sent.current?.of !== of)
      sent.current = {
        of,
        key: crypto.randomUUID(),
        body: importBody(dossier, target, taken, trial, new Date()),
      }
    try {
      await importAll(sent.current.body, sent.current.key, dossier.model.id)
      toast(`${taken.rows.length} rows imported.`)
      onClose()
    } catch (e) {
      setError(
        e instanceof Unreachable
          ? 'The server cannot be reached, so nothing was imported. The text stays here; try again when it is back.'
          : e instanceof ApiProblem
            ? `Nothing was imported: ${e.problem.errors?.map((x) => `${x.field}: ${x.message}`).join('; ') ?? e.message}`
            : 'Nothing was imported.',
      )
    } finally {
      setBusy(false)
    }
  }
  return (
    <dialog
      ref={dialog}
      aria-labelledby={`${id}-title`}
      className="bg-base-100 text-base-content border-base-content m-auto max-h-[92dvh] w-[52rem] max-w-[calc(100vw-1rem)] overflow-y-auto border p-5 backdrop:bg-black/40"
      onClose={onClose}
    >
      <div className="flex items-start justify-between">
        <h2 id={`${id}-title`}>Paste or import</h2>
        <button type="button" className="btn btn-ghost btn-sm" aria-label="Close" onClick={onClose}>
          <X size={18} aria-hidden="true" />
        </button>
      </div>
      <Source targetId={targetId} setTargetId={setTargetId} allowed={allowed} read={read} />
      <Pasted text={text} target={target} setText={setText} />
      {table && taken && <Preview table={table} taken={taken} mapping={mapping} target={target} set={set} />}
      <div aria-live="polite">
        {taken?.problem && <p className="text-warning mt-2">{taken.problem}</p>}
        {taken && taken.bad.length > 0 && <BadCells taken={taken} />}
        {error && (
          <p role="alert" className="text-error mt-2">
            {error}
          </p>
        )}
      </div>
      <div className="mt-4 flex justify-end gap-3">
        <button type="button" className="btn btn-ghost" onClick={onClose}>
          Cancel
        </button>
        <button
          type="button"
          className="btn btn-primary"
          disabled={!ready || busy}
          onClick={() => void submit()}
        >
          {busy ? 'Importing …' : ready ? `Import ${taken.rows.length} rows` : 'Import'}
        </button>
      </div>
    </dialog>
  )
}

/** The table as it was pasted. */
function Pasted({
  text,
  target,
  setText,
}: {
  readonly text: string
  readonly target: Importable
  readonly setText: Dispatch<SetStateAction<string>>
}) {
  return (
    <label className="mt-3 block">
      <span className="kicker block">Rows, as copied from a spreadsheet or a file</span>
      <textarea
        className="field num !h-32 border text-[0.9rem]"
        spellCheck={false}
        value={text}
        placeholder={target.roles.map((r) => r.label).join('; ')}
        onChange={(e) => setText(e.target.value)}
        onPaste={(e) => {
          // Thousands of lines are put in as a whole: a browser's own editing takes many seconds over them.
          e.preventDefault()
          const { selectionStart, selectionEnd, value } = e.currentTarget
          setText(
            value.slice(0, selectionStart) + e.clipboardData.getData('text') + value.slice(selectionEnd),
          )
        }}
      />
    </label>
  )
}

/** Cells that cannot be read, the first of them by their line. */
function BadCells({ taken }: { readonly taken: Taken }) {
  return (
    <div className="mt-2">
      <p className="text-error font-medium">
        {taken.bad.length} {taken.bad.length === 1 ? 'cell cannot' : 'cells cannot'} be read, so nothing is
        imported. Correct them above, or take the lines out:
      </p>
      <ul className="mt-1 text-[0.92rem]">
        {taken.bad.slice(0, LISTED).map((b, i) => (
          <li key={i}>
            Line {b.line}, {b.column}: {b.message}.
          </li>
        ))}
        {taken.bad.length > LISTED && <li>and {taken.bad.length - LISTED} more</li>}
      </ul>
    </div>
  )
}

/** Kind of import, and a file to read it from. */
function Source({
  targetId,
  setTargetId,
  allowed,
  read,
}: {
  readonly targetId: string
  readonly setTargetId: Dispatch<SetStateAction<string>>
  readonly allowed: readonly Importable[]
  readonly read: (file: File | undefined) => Promise<void>
}) {
  return (
    <div className="mt-2 flex flex-wrap items-end gap-4">
      <label className="block">
        <span className="kicker block">What it is</span>
        <select className="field !w-auto" value={targetId} onChange={(e) => setTargetId(e.target.value)}>
          {allowed.map((t) => (
            <option key={t.id} value={t.id}>
              {t.label}
            </option>
          ))}
        </select>
      </label>
      <label className="btn btn-sm focus-within:outline-2">
        <Upload size={16} aria-hidden="true" /> Choose a file
        <input
          type="file"
          accept=".csv,.tsv,.txt,text/csv,text/plain"
          className="sr-only"
          onChange={(e) => void read(e.target.files?.[0])}
        />
      </label>
    </div>
  )
}

/** The first rows of the table, each column with what it is taken for. */
function Preview({
  table,
  taken,
  mapping,
  target,
  set,
}: {
  readonly table: Table
  readonly taken: Taken
  readonly mapping: Mapping
  readonly target: Importable
  readonly set: (i: number, value: Mapping[number]) => void
}) {
  return (
    <>
      <p className="muted mt-1 text-[0.9rem]">
        Separated by {DELIMITERS[table.delimiter] ?? `“${table.delimiter}”`}, decimal{' '}
        {table.decimal === ',' ? 'comma' : 'point'}, {table.rows.length} rows
        {table.header ? ' under a header' : ', no header'}.
        {taken.gaps > 0 && ` ${taken.gaps} empty cells are gaps.`}
      </p>
      <div className="mt-1 overflow-x-auto" tabIndex={0} role="region" aria-label="Columns, table">
        <Sheet
          columns={[
            ...mapping.map((m, i) => ({
              label: (
                <>
                  <div className="text-base-content truncate">{table.header?.[i] ?? `Column ${i + 1}`}</div>
                  <select
                    className="field"
                    aria-label={`Column ${i + 1} is`}
                    value={m?.role ?? ''}
                    onChange={(e) => {
                      const r = target.roles.find((x) => x.id === e.target.value)
                      set(i, r ? { role: r.id, unit: r.unit } : null)
                    }}
                  >
                    <option value="">not used</option>
                    {target.roles.map((r) => (
                      <option key={r.id} value={r.id}>
                        {r.label}
                      </option>
                    ))}
                  </select>
                  {m && (
                    <UnitOf
                      role={m.role}
                      unit={m.unit}
                      index={i}
                      target={target}
                      onChange={(unit) => set(i, { role: m.role, unit })}
                    />
                  )}
                </>
              ),
              className: 'min-w-32',
            })),
          ]}
        >
          {table.rows.slice(0, PREVIEW).map((r) => (
            <tr key={r.line}>
              {mapping.map((m, i) => (
                <td key={i} className={`num ${m ? '' : 'muted'}`}>
                  {r.cells[i] ?? ''}
                </td>
              ))}
            </tr>
          ))}
        </Sheet>
      </div>
      {table.rows.length > PREVIEW && (
        <p className="muted text-[0.85rem]">and {table.rows.length - PREVIEW} more</p>
      )}
    </>
  )
}

function UnitOf({
  role,
  unit,
  index,
  target,
  onChange,
}: {
  readonly role: string
  readonly unit: string
  readonly index: number
  readonly target: Target
  readonly onChange: (unit: string) => void
}) {
  const r = target.roles.find((x) => x.id === role)
  if (!r || r.dimension === 'ratio') return null
  return (
    <select
      className="field"
      aria-label={`Unit of column ${index + 1}`}
      value={unit}
      onChange={(e) => onChange(e.target.value)}
    >
      {unitsOf(r.dimension).map((u) => (
        <option key={u} value={u}>
          {u}
        </option>
      ))}
    </select>
  )
}
