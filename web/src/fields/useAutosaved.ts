import type { PatchOf, ResourceName } from '@ypsometer/contract'
import { useEffect, useRef, useState } from 'react'
import { changeRow, type Versioned } from '../api/rows'
import { outbox, useEntries } from '../api/app'
import { fieldsOf, type Entry } from '../api/outboxPolicy'
import { readDraft, writeDraft } from './drafts'

/** Result of a field’s text: columns to write, a question first, or an error. */
export type Reading<N extends ResourceName> =
  | { readonly kind: 'ok'; readonly body: PatchOf<N> }
  | { readonly kind: 'ask'; readonly question: React.ReactNode; readonly body: PatchOf<N> }
  | { readonly kind: 'error'; readonly message: string }

export interface AutosaveOptions<N extends ResourceName> {
  readonly collection: N
  readonly row: Versioned
  /** The column; also names the draft and finds the server's complaint about it. */
  readonly field: string
  /** The text of the value as it is now. */
  readonly shown: string
  readonly read: (text: string) => Reading<N>
}

/** A write of this column that the server refused or somebody else's change stands against. */
export function useParked(row: Pick<Versioned, 'id'>, field: string): Entry | undefined {
  return useEntries().find((e) => e.rowId === row.id && e.state !== 'waiting' && field in fieldsOf(e))
}

/**
 * State of one autosaved text field. What is typed is kept as a draft at once, written when it can be read (half a
 * second after the last key, or on leaving), and never replaced by what the server says while the person is typing.
 */
export function useAutosaved<N extends ResourceName>({
  collection,
  row,
  field,
  shown,
  read,
}: AutosaveOptions<N>) {
  const draftName = `${collection}.${row.id}.${field}`
  const [text, setText] = useState<string | null>(() => readDraft(draftName))
  const [agreed, setAgreed] = useState<string | null>(null)
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const parked = useParked(row, field)
  const current = text ?? shown
  const reading = text === null || text === shown ? null : read(text)

  const commit = (value: string): void => {
    clearTimeout(timer.current)
    outbox.setTyping(draftName, false)
    if (value === shown) {
      writeDraft(draftName, null)
      setText(null)
      return
    }
    const r = read(value)
    if (r.kind === 'error' || (r.kind === 'ask' && agreed !== value)) return
    changeRow(collection, row, r.body)
    writeDraft(draftName, null)
    setText(null)
  }
  const commitRef = useRef(commit)
  const textRef = useRef(text)
  useEffect(() => {
    commitRef.current = commit
    textRef.current = text
  })
  // Leaving the view writes what can be written; the rest stays as a draft.
  useEffect(
    () => () => {
      if (textRef.current !== null) commitRef.current(textRef.current)
    },
    [],
  )

  return {
    text: current,
    error: reading?.kind === 'error' ? reading.message : null,
    question: reading?.kind === 'ask' && agreed !== text ? reading.question : null,
    parked,
    onChange: (value: string): void => {
      setText(value)
      writeDraft(draftName, value)
      clearTimeout(timer.current)
      outbox.setTyping(draftName, true)
      timer.current = setTimeout(() => commitRef.current(value), 600)
    },
    onLeave: (): void => {
      if (text !== null) commit(text)
    },
    agree: (): void => {
      if (text === null) return
      setAgreed(text)
      const r = read(text)
      if (r.kind === 'error') return
      changeRow(collection, row, r.body)
      writeDraft(draftName, null)
      setText(null)
    },
    revert: (): void => {
      clearTimeout(timer.current)
      outbox.setTyping(draftName, false)
      writeDraft(draftName, null)
      setText(null)
    },
  }
}

/** Is a path such as `marks.band` or `rows.0.name` about a field? */
const isAbout = (path: string, field: string): boolean =>
  path === field || path.endsWith(`.${field}`) || path.startsWith(`${field}.`)

/** Objection of the server to a parked write of this field. */
export function complaint(entry: Entry | undefined, field: string): string | null {
  if (!entry?.problem) return null
  if (entry.state === 'conflict') return null
  const errors = entry.problem.errors ?? []
  const own = errors.find((e) => isAbout(e.field, field))
  if (own) return own.message
  // It names another field that was sent along: this one is not at fault.
  const others = Object.keys(fieldsOf(entry))
  if (errors.length > 0 && errors.every((e) => others.some((f) => isAbout(e.field, f)))) return null
  return errors[0]?.message ?? entry.problem.title
}
