import { X } from 'lucide-react'
import { useEffect, useRef } from 'react'
import { useStatus } from './BackupNote'
import { showWhen } from '../settings/when'
import { PROVENANCE_MEANING, PROVENANCE_WORDS, Mark } from '../figures/Provenance'
import type { Provenance } from '@ypsometer/core/figures/figure'
import { Sheet } from '../figures/Sheet'
import { singleKeys } from '../settings/settings'
import { GLOSSARY } from '../figures/glossary'
import { Words } from '../figures/Words'

const KEYS: readonly (readonly [string, string])[] = [
  ['?', 'Help'],
  ['1', 'Shelf'],
  ['2', 'Tanks'],
  ['3', 'Library of media'],
  ['4', 'House rules'],
  ['/', 'Search the filters'],
  ['Space', 'Bench run: start, stop'],
  ['Backspace', 'Bench run: undo the last run'],
  ['Esc', 'Close'],
]

/** Short help: keys, and what the marks beside numbers mean. */
export function Help({ onClose }: { readonly onClose: () => void }) {
  const dialog = useRef<HTMLDialogElement>(null)
  useEffect(() => dialog.current?.showModal(), [])
  const backup = useStatus().data?.backup ?? null
  return (
    <dialog
      ref={dialog}
      className="bg-base-100 text-base-content border-base-content m-auto w-[40rem] max-w-[calc(100vw-2rem)] border p-6 shadow-xl backdrop:bg-black/40"
      onClose={onClose}
      aria-labelledby="help-title"
    >
      <div className="flex justify-between">
        <h2 id="help-title">Shortcuts and symbols</h2>
        <button
          type="button"
          className="btn btn-ghost btn-sm btn-square"
          aria-label="Close"
          onClick={() => dialog.current?.close()}
        >
          <X size={18} aria-hidden="true" />
        </button>
      </div>
      <div className="mt-3 grid gap-6 sm:grid-cols-2">
        <Keys />
        <dl className="space-y-2">
          {(Object.keys(PROVENANCE_WORDS) as Provenance[]).map((p) => (
            <div key={p}>
              <dt className="font-bold">
                <Mark of={p} /> {PROVENANCE_WORDS[p]}
              </dt>
              <dd className="muted text-[0.92rem]">{PROVENANCE_MEANING[p]}</dd>
            </div>
          ))}
        </dl>
      </div>
      <details className="mt-4">
        <summary className="cursor-pointer font-bold">Words used here</summary>
        <dl className="mt-2 grid gap-x-6 gap-y-2 sm:grid-cols-2">
          {GLOSSARY.map(({ term, meaning }) => (
            <div key={term}>
              <dt className="font-bold">{term}</dt>
              <dd className="muted text-[0.92rem]">
                <Words sentence={meaning} />
              </dd>
            </div>
          ))}
        </dl>
      </details>
      <p className="muted mt-4 text-[0.92rem]">
        Type numbers with any unit: “2.5 gal”, “6 ft 2”, “1,5 l”, “120 gph”. Unplug filter and heater before
        you reach into the water.
      </p>
      <p className="muted mt-2 text-[0.92rem]">
        {backup
          ? `Last backup: ${showWhen(backup.at)}, ${(backup.bytes / 2 ** 20).toFixed(1)} MB.`
          : 'No backup yet. One runs every night; to make one now: npm run backup.'}
      </p>
    </dialog>
  )
}

/** Keys that act on their own, and the switch that turns them off on this device. */
function Keys() {
  const on = singleKeys.use() === 'on'
  return (
    <div>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox"
          checked={on}
          onChange={(e) => singleKeys.set(e.target.checked ? 'on' : 'off')}
        />
        Single-key shortcuts
      </label>
      <Sheet className={`mt-2 self-start ${on ? '' : 'opacity-50'}`}>
        {KEYS.map(([k, what]) => (
          <tr key={k}>
            <td>
              <kbd className="num border-base-content border px-1.5 py-0.5 text-[0.85rem]">{k}</kbd>
            </td>
            <td>{what}</td>
          </tr>
        ))}
      </Sheet>
    </div>
  )
}
