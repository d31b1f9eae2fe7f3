import type { CsvIn, ImportReport } from '@ypsometer/contract'
import { CSV_IN } from '@ypsometer/contract/tables'
import { Download, Upload } from 'lucide-react'
import { useRef, useState } from 'react'
import { importDocument, lookAtDocument, tableOf, undoImport } from '../../api/documents'
import { useCandidates } from '../../api/shelf'
import { useHouseRules, useMedia, useReviews, useTanks } from '../../api/lists'
import { errorMessage } from '../../api/errorMessage'
import { toast } from '../../frame/toastStore'
import { Report } from './Report'
import { TABLE_WORDS, Tables } from './Tables'
import { Heading } from '../../frame/Heading'

/** Documents out and in: one thing or the whole bench, looked at before it is taken. */
export function Documents() {
  return (
    <>
      <Heading>Import and export</Heading>
      <p className="muted max-w-2xl">
        Export everything or one item as an open file, or tables for a spreadsheet. Import them here or on
        another Ypsometer. With photos the file is an archive.
      </p>
      <div className="mt-5 grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-9 lg:grid-cols-[20rem_minmax(0,1fr)]">
        <Out />
        <In />
      </div>
    </>
  )
}

function Out() {
  const [photos, setPhotos] = useState(true)
  const way = photos ? '/zip' : ''
  const { data: candidates = [] } = useCandidates()
  const { tanks = [] } = useTanks()
  const { media = [] } = useMedia()
  const { rules = [] } = useHouseRules(null)
  const { reviews = [] } = useReviews()
  const models = candidates
    .flatMap((c) => (c.candidate ? [{ id: c.id, name: c.candidate.name }] : []))
    .sort((a, b) => a.name.localeCompare(b.name))
  return (
    <section aria-labelledby="out-title" className="space-y-3">
      <h2 id="out-title">Export</h2>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox"
          checked={photos}
          onChange={(e) => setPhotos(e.target.checked)}
        />
        with photos, as an archive
      </label>
      <a href={`/api/v1/documents/bench${way}`} download className="btn btn-primary btn-sm">
        <Download size={16} aria-hidden="true" /> Everything
      </a>
      <One way={way} subject="model" label="A model" items={models} />
      <One way={way} subject="tank" label="A tank" items={tanks} />
      <One way={way} subject="medium" label="A medium" items={media} />
      <One way={way} subject="house-rule" label="A house rule" items={rules} />
      <One
        way={way}
        subject="review"
        label="A review, with every edition"
        items={reviews.map((r) => ({ id: r.id, name: r.title || 'without a title' }))}
      />
      <p className="muted text-[0.88rem]">
        Its JSON Schema is at{' '}
        <a className="link" href="/api/v1/documents/schema">
          /api/v1/documents/schema
        </a>
        .
      </p>
      <Tables models={models} />
    </section>
  )
}

interface OneProps {
  readonly way: string
  readonly subject: string
  readonly label: string
  readonly items: readonly { readonly id: string; readonly name: string }[]
}

/** One thing of a kind as a file. */
function One({ way, subject, label, items }: OneProps) {
  const [id, setId] = useState('')
  const chosen = items.find((i) => i.id === id) ?? items[0]
  return (
    <div className="flex items-end gap-2">
      <label className="min-w-0 grow">
        <span className="kicker">{label}</span>
        <select className="field" value={chosen?.id ?? ''} onChange={(e) => setId(e.target.value)}>
          {items.map((i) => (
            <option key={i.id} value={i.id}>
              {i.name}
            </option>
          ))}
        </select>
      </label>
      {chosen && (
        <a
          href={`/api/v1/documents/${subject}${way}?id=${chosen.id}`}
          download
          className="btn btn-sm"
          aria-label={`Save ${chosen.name} as a file`}
        >
          <Download size={16} aria-hidden="true" />
        </a>
      )}
    </div>
  )
}

function In() {
  const [file, setFile] = useState<File | null>(null)
  const [table, setTable] = useState<CsvIn | null>(null)
  const [report, setReport] = useState<ImportReport | null>(null)
  const [taken, setTaken] = useState<string | null>(null)
  const [failure, setFailure] = useState('')
  const [busy, setBusy] = useState(false)
  const input = useRef<HTMLInputElement>(null)
  const doing = async (work: () => Promise<void>): Promise<void> => {
    setBusy(true)
    setFailure('')
    try {
      await work()
    } catch (error) {
      setFailure(errorMessage(error))
    } finally {
      setBusy(false)
    }
  }
  const look = (given: File, of: CsvIn | null): Promise<void> =>
    doing(async () => {
      setReport(null)
      setTaken(null)
      setFile(given)
      setTable(of)
      setReport(await lookAtDocument(given, of))
    })
  const take = (): Promise<void> =>
    doing(async () => {
      if (!file) return
      const done = await importDocument(file, table)
      setReport(done)
      setTaken(done.undo)
      toast('Imported.')
    })
  const back = (): Promise<void> =>
    doing(async () => {
      await undoImport(taken ?? '')
      setTaken(null)
      setReport(null)
      toast('Undone. Everything is as it was before the import.')
    })
  const writes = report ? report.counts.new + report.counts.changed : 0
  return (
    <section aria-labelledby="in-title" className="min-w-0 space-y-3" aria-busy={busy}>
      <h2 id="in-title">Import</h2>
      <div className="flex flex-wrap items-center gap-3">
        <input
          ref={input}
          type="file"
          accept=".json,.zip,.csv,application/json,application/zip,text/csv"
          className="sr-only"
          aria-label="A document to read"
          onChange={(e) => {
            const [given] = e.target.files ?? []
            if (given) void look(given, tableOf(given.name))
            e.target.value = ''
          }}
        />
        <button type="button" className="btn btn-sm" disabled={busy} onClick={() => input.current?.click()}>
          <Upload size={16} aria-hidden="true" /> Choose a file to preview
        </button>
        {report && !taken && report.refused.length === 0 && writes > 0 && (
          <button
            type="button"
            className="btn btn-primary btn-sm"
            disabled={busy}
            onClick={() => void take()}
          >
            Import all
          </button>
        )}
        {taken && (
          <button type="button" className="btn btn-sm" disabled={busy} onClick={() => void back()}>
            Undo
          </button>
        )}
      </div>
      {file && table && (
        <label className="flex flex-wrap items-baseline gap-2">
          <span>It is a table of</span>
          <select
            className="field !min-h-0 !w-auto !py-0.5"
            value={table}
            disabled={busy || taken !== null}
            onChange={(e) => void look(file, e.target.value as CsvIn)}
          >
            {CSV_IN.map((t) => (
              <option key={t} value={t}>
                {TABLE_WORDS[t][0]}
              </option>
            ))}
          </select>
        </label>
      )}
      {!report && !failure && (
        <p className="muted max-w-xl">
          Preview first: nothing is saved until you confirm. You see new, changed and rejected rows.
        </p>
      )}
      {failure && (
        <p role="alert" className="text-error">
          {failure}
        </p>
      )}
      {report && <Report report={report} name={file?.name ?? ''} taken={taken !== null} />}
    </section>
  )
}
