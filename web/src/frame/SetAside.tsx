import { OUTLINE } from '@ypsometer/contract/outline'
import { outbox, useEntries, useOthersEntries } from '../api/app'
import { fieldsOf, type Entry } from '../api/outboxPolicy'

const VERBS: Readonly<Record<Entry['method'], string>> = {
  POST: 'New',
  PATCH: 'Change to a',
  DELETE: 'Removal of a',
  RESTORE: 'Return of a',
}
/** The texts of a write that a person would know it by: as typed, where it was typed. */
function wordsOf(e: Entry): string {
  const { typed, ...fields } = fieldsOf(e)
  const texts = Object.entries(fields).filter(([k, v]) => typeof v === 'string' && v && !/^id$|Id$/.test(k))
  return Object.entries({ ...Object.fromEntries(texts), ...(typed as object | undefined) })
    .slice(0, 3)
    .map(([k, v]) => `${k} “${String(v)}”`)
    .join(', ')
}
const reasonOf = ({ state, problem }: Entry): string => {
  if (state === 'conflict') return 'changed elsewhere meanwhile'
  const error = problem?.errors?.[0]
  return error ? `${error.field}: ${error.message}` : (problem?.title ?? 'refused')
}

/** Every write that waits for the person: what it was, why it did not go through, and the two ways out. */
export function SetAside() {
  const parked = useEntries().filter((e) => e.state !== 'waiting')
  const others = useOthersEntries()
  return (
    <>
      {parked.length > 0 && <Parked parked={parked} />}
      {others.length > 0 && <Others entries={others} />}
    </>
  )
}

/** Writes of somebody else on this device that could not be sent: it waits for them. */
function Others({ entries }: { readonly entries: readonly Entry[] }) {
  const names = [...new Set(entries.map((e) => e.byName ?? 'somebody else'))].join(', ')
  return (
    <details className="no-print bg-base-200 border-base-300 border-b px-4 py-1 sm:px-6">
      <summary className="cursor-pointer">
        {entries.length === 1 ? 'One entry' : `${entries.length} entries`} of {names}{' '}
        {entries.length === 1 ? 'is' : 'are'} kept on this device until they sign in here
      </summary>
      <ul className="space-y-1 py-2">
        {entries.map((e) => (
          <li key={e.key} className="flex flex-wrap items-center gap-x-3 gap-y-1">
            <span>
              {VERBS[e.method]} {OUTLINE[e.collection].singular}
              {wordsOf(e) && ` (${wordsOf(e)})`}
            </span>
            <button type="button" className="btn btn-xs" onClick={() => outbox.discard(e.key)}>
              Discard my change for them
            </button>
          </li>
        ))}
      </ul>
    </details>
  )
}

function Parked({ parked }: { readonly parked: readonly Entry[] }) {
  return (
    <details className="no-print border-warning bg-base-200 border-b px-4 py-1 sm:px-6">
      <summary className="text-warning cursor-pointer font-medium">
        {parked.length === 1
          ? 'One entry is kept on this device and needs your decision'
          : `${parked.length} entries are kept on this device and need your decision`}
      </summary>
      <ul className="space-y-1 py-2">
        {parked.map((e) => (
          <li key={e.key} className="flex flex-wrap items-center gap-x-3 gap-y-1">
            <span>
              {VERBS[e.method]} {OUTLINE[e.collection].singular}
              {wordsOf(e) && ` (${wordsOf(e)})`}: <span className="text-error">{reasonOf(e)}</span>
            </span>
            <button
              type="button"
              className="btn btn-xs btn-warning"
              onClick={() => outbox.resolve(e.key, 'mine')}
            >
              {e.state === 'conflict' ? 'Keep my version' : 'Try again'}
            </button>
            <button type="button" className="btn btn-xs" onClick={() => outbox.resolve(e.key, 'theirs')}>
              {e.state === 'conflict' ? 'Use their version' : 'Discard my change'}
            </button>
          </li>
        ))}
      </ul>
    </details>
  )
}
