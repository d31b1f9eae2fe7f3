import type { Dossier, Part } from '@ypsometer/contract'
import { partsOf, partKind } from '@ypsometer/core/teardown/catalogue'
import { underneath } from '@ypsometer/core/parts/partKind'
import { ArrowLeft, Minus, Plus, Undo2 } from 'lucide-react'
import { useMemo, useState, type Dispatch, type SetStateAction } from 'react'
import { Link, useParams } from 'react-router'
import { useDossier } from '../../api/dossier'
import { createRow } from '../../api/rows'
import { removeRow } from '../../frame/removed'
import { KeptNote } from '../../frame/KeptNote'
import { Failed, Loading } from '../../frame/States'
import { Toasts } from '../../frame/Toasts'
import { tick, useAwake } from '../../trials/screens/useAwake'
import { useBenchKeys } from '../../trials/screens/useBenchKeys'
import { useStopwatch } from '../../trials/screens/useStopwatch'
import { Condition } from '../../fields/Condition'
import { Photos } from '../../photos/Photos'
import { DossierProvider } from '../../frame/dossier'
import { Heading } from '../../frame/Heading'

/** Taking apart in the bench posture: a running clock and one large button that records each part as it comes off. */
export function StripRun() {
  const { id = '' } = useParams()
  const { dossier, error, isPending, refetch } = useDossier(id)
  if (!dossier)
    return isPending ? (
      <Loading />
    ) : (
      <Failed error={error ?? new Error('no answer')} what="this teardown" retry={() => void refetch()} />
    )
  return (
    <DossierProvider dossier={dossier}>
      <Log dossier={dossier} />
    </DossierProvider>
  )
}

function Log({ dossier }: { readonly dossier: Dossier }) {
  const { model } = dossier
  const parts = useMemo(() => [...dossier.parts].sort((a, b) => a.position - b.position), [dossier.parts])
  const watch = useStopwatch(`strip.${model.id}`)
  const suggested = useMemo(
    () =>
      partsOf(model.kind)
        .map((p) => p.name)
        .filter((n) => !parts.some((p) => p.name === n)),
    [model.kind, parts],
  )
  const [picked, setPicked] = useState<string | null>(null)
  const [free, setFree] = useState('')
  const [moves, setMoves] = useState(1)
  useAwake()
  const name =
    free.trim() ||
    (picked && suggested.includes(picked) ? picked : suggested[0]) ||
    `Part ${parts.length + 1}`
  const last = parts.at(-1)

  const record = (): void => {
    if (!watch.running) return watch.begin()
    const seconds = Math.round(watch.end() * 10) / 10
    tick()
    const kind = partKind(model.kind, name)
    createRow('parts', {
      modelId: model.id,
      position: (last?.position ?? 0) + 1,
      name: name.slice(0, 80),
      job: kind.job,
      material: kind.material,
      fixing: kind.fixing,
      moves,
      seconds,
      after: underneath(kind, parts),
      reach: kind.reach ?? null,
      checklist: kind.checklist,
      findings: [],
      sparePriceMinor: null,
      spareCurrency: null,
      wetMass: null,
      note: '',
      typed: {},
    })
    setPicked(null)
    setFree('')
    setMoves(1)
    watch.begin()
  }
  const step = (by: number): void => {
    const i = Math.max(0, suggested.indexOf(name))
    setFree('')
    setPicked(suggested[(i + by + suggested.length) % suggested.length] ?? null)
  }
  const undo = (): void => {
    if (last) removeRow('parts', last, last.name)
  }
  // Arrows choose the next part, a digit sets the moves.
  useBenchKeys({
    space: record,
    backspace: undo,
    other: (key) => {
      const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[key]
      if (by) step(by)
      else if (/^\d$/.test(key)) setMoves(Number(key))
      return by !== undefined || /^\d$/.test(key)
    },
  })

  return (
    <div className="flex h-dvh flex-col">
      <header className="rule-b flex items-center gap-3 px-3 py-1.5">
        <Link
          to={`/models/${model.id}/strip`}
          className="btn btn-ghost h-14 w-14 p-0"
          aria-label="Back to the parts list"
        >
          <ArrowLeft aria-hidden="true" />
        </Link>
        <div className="min-w-0 flex-1 leading-tight">
          <Heading className="truncate text-[1.15rem]">{`Taking apart ${model.name}`}</Heading>
          <KeptNote />
        </div>
        {watch.running && (
          <button type="button" className="btn h-14 px-4" onClick={() => watch.end()}>
            Pause
          </button>
        )}
      </header>
      <main className="min-h-0 flex-1 overflow-y-auto px-4 py-3 sm:mx-auto sm:w-full sm:max-w-3xl">
        {!watch.running && parts.length === 0 ? (
          <p className="text-[1.1rem]">
            Unplug it, close the taps, empty it over a basin. Put the parts on a towel in removal order. The
            clock starts with the large button; each press after that records the part just taken off.
          </p>
        ) : (
          <NextPart
            free={free}
            name={name}
            setFree={setFree}
            suggested={suggested}
            setPicked={setPicked}
            setMoves={setMoves}
            moves={moves}
          />
        )}
        {last && <LastPart part={last} count={parts.length} onUndo={undo} />}
        {parts.length > 1 && <PartsOff parts={parts} />}
      </main>
      <Toasts />
      <RecordButton watch={watch} record={record} name={name} parts={parts} />
    </div>
  )
}

/** The one large button: starts the clock, then records each part. */
function RecordButton({
  watch,
  record,
  name,
  parts,
}: {
  readonly watch: ReturnType<typeof useStopwatch>
  readonly record: () => void
  readonly name: string
  readonly parts: Part[]
}) {
  return (
    <button
      type="button"
      className={`flex h-[30dvh] min-h-36 w-full shrink-0 cursor-pointer flex-col items-center justify-center select-none ${watch.running ? 'bg-primary text-primary-content' : 'bg-base-content text-base-100'}`}
      style={{ touchAction: 'manipulation' }}
      onClick={record}
    >
      <span className="num text-[3rem] leading-none font-semibold" aria-hidden="true">
        {watch.seconds.toFixed(1)}
        <span className="ml-2 text-[1.3rem] opacity-80">s</span>
      </span>
      <span className="mt-2 px-4 text-center text-[1.5rem] leading-tight font-bold">
        {watch.running ? `Off: ${name}` : parts.length ? 'Go on' : 'Start the clock'}
      </span>
      <span className="mt-1 text-[0.95rem] opacity-80">or the space bar</span>
    </button>
  )
}

/** Parts that are off, newest first. */
function PartsOff({ parts }: { readonly parts: Part[] }) {
  return (
    <ol className="rule-t mt-3" reversed aria-label="Parts off, newest first">
      {[...parts].reverse().map((p, i) => (
        <li key={p.id} className="rule-b flex justify-between gap-3 py-1">
          <span>
            <span className="num muted mr-2">{parts.length - i}</span>
            {p.name}
          </span>
          <span className="num muted">
            {p.moves} · {p.seconds.toFixed(1)} s
          </span>
        </li>
      ))}
    </ol>
  )
}

/** The part that comes off next, and how many moves it takes. */
function NextPart({
  free,
  name,
  setFree,
  suggested,
  setPicked,
  setMoves,
  moves,
}: {
  readonly free: string
  readonly name: string
  readonly setFree: Dispatch<SetStateAction<string>>
  readonly suggested: string[]
  readonly setPicked: Dispatch<SetStateAction<string | null>>
  readonly setMoves: Dispatch<SetStateAction<number>>
  readonly moves: number
}) {
  return (
    <>
      <label className="block">
        <span className="kicker">The part just coming off</span>
        <input
          className="field !min-h-14 text-[1.15rem]"
          value={free}
          placeholder={name}
          maxLength={80}
          aria-label="Another name for this part"
          onChange={(e) => setFree(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        />
      </label>
      <div className="mt-3 flex flex-wrap gap-2" role="group" aria-label="Usual parts still on it">
        {suggested.slice(0, 8).map((n) => (
          <button
            key={n}
            type="button"
            aria-pressed={n === name}
            className={`btn h-14 px-4 text-[1.02rem] ${n === name ? 'btn-neutral' : ''}`}
            onClick={() => {
              setFree('')
              setPicked(n)
            }}
          >
            {n}
          </button>
        ))}
      </div>
      <div className="mt-3 flex items-center gap-3">
        <span className="flex-1">Hand movements</span>
        <button
          type="button"
          className="btn h-14 w-14 p-0"
          aria-label="One move fewer"
          onClick={() => setMoves(Math.max(0, moves - 1))}
        >
          <Minus aria-hidden="true" />
        </button>
        <span className="num w-10 text-center text-[1.6rem]" aria-live="polite">
          {moves}
        </span>
        <button
          type="button"
          className="btn h-14 w-14 p-0"
          aria-label="One move more"
          onClick={() => setMoves(moves + 1)}
        >
          <Plus aria-hidden="true" />
        </button>
      </div>
    </>
  )
}

/** The part recorded last: its condition at once, while it is in the hand. */
function LastPart({
  part,
  count,
  onUndo,
}: {
  readonly part: Part
  readonly count: number
  readonly onUndo: () => void
}) {
  const [photos, setPhotos] = useState(false)
  return (
    <section className="rule-t mt-4 pt-3" aria-label={`Last part: ${part.name}`}>
      <div className="flex items-center justify-between gap-3">
        <p role="status">
          <span className="num muted">{count}</span> <strong>{part.name}</strong>{' '}
          <span className="num muted">{part.seconds.toFixed(1)} s</span>
        </p>
        <span className="flex gap-2">
          <button
            type="button"
            className="btn h-14 px-4"
            aria-expanded={photos}
            onClick={() => setPhotos(!photos)}
          >
            Photos
          </button>
          <button type="button" className="btn h-14 px-4" onClick={onUndo}>
            <Undo2 aria-hidden="true" /> Undo
          </button>
        </span>
      </div>
      <Condition part={part} large />
      {photos && <Photos owner={{ partId: part.id }} />}
    </section>
  )
}
