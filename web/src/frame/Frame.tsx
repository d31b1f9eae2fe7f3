import { CircleHelp, Moon, Sun, UserRound } from 'lucide-react'
import { lazy, Suspense, useEffect, useState } from 'react'
import { NavLink, Outlet, useNavigate } from 'react-router'
import type { UnitSystem } from '@ypsometer/core/units/dimensions'
import { serverAway } from '../api/client'
import { useEntries, useOthersEntries, useSaveState } from '../api/app'
import { useMe } from '../api/people'
import { retryWhenBack } from '../api/retryWhenBack'
import { type SaveState } from '../api/outboxPolicy'
import { BackupNote } from './BackupNote'
import { CompareTray } from './CompareTray'
import { Glyph } from './Glyph'
import { singleKeys, SYSTEMS, theme, units } from '../settings/settings'
import { RoomNote } from './RoomNote'
import { Toasts } from './Toasts'

const SetAside = lazy(async () => ({ default: (await retryWhenBack(() => import('./SetAside'))).SetAside }))
const Help = lazy(async () => ({ default: (await retryWhenBack(() => import('./Help'))).Help }))

const SAVE_WORDS: Readonly<Record<SaveState, string>> = {
  saved: 'Saved',
  saving: 'Saving …',
  kept: 'Offline',
  'needs-you': 'Conflict: choose a version',
  'no-room': 'No storage left: keep this page open',
}

/** Says whether what was typed has reached the server. */
function SaveMark() {
  const state = useSaveState()
  const waiting = useEntries().length
  const away = serverAway.use()
  if (away && state === 'saved')
    return (
      <span
        role="status"
        className="text-warning text-[0.88rem] font-medium"
        title="The server cannot be reached. You see the last copy on this device. Your changes are saved here."
      >
        Offline: showing this device’s copy
      </span>
    )
  const tone = ['kept', 'needs-you', 'no-room'].includes(state) ? 'text-warning font-medium' : 'muted'
  return (
    <span
      role="status"
      className={`text-[0.88rem] whitespace-nowrap ${tone}`}
      title={
        state === 'kept'
          ? 'The server cannot be reached. Everything typed is on this device and is sent when it is back.'
          : state === 'no-room'
            ? 'This device keeps nothing more. What you typed is in this page only, until the server has it.'
            : undefined
      }
    >
      {SAVE_WORDS[state]}
      {state === 'kept' && `: ${waiting} ${waiting === 1 ? 'change' : 'changes'} waiting`}
    </span>
  )
}

/** Who is here, and the way to the people of the bench. */
function Who() {
  const { data: me } = useMe()
  return (
    <NavLink
      to="/people"
      className={({ isActive }) => `flex items-center gap-1 ${isActive ? 'font-bold' : 'hover:underline'}`}
      title={me?.person ? `You are here as ${me.person.role}` : 'People'}
    >
      <UserRound size={16} aria-hidden="true" />
      <span className="max-w-32 truncate max-sm:sr-only">{me?.person?.name ?? 'People'}</span>
      {me?.person?.role === 'reader' && <span className="muted text-[0.85rem]">reads</span>}
    </NavLink>
  )
}

/** Writes that wait for the person; their code comes with the first of them. */
function SomeSetAside() {
  const parked = useEntries().some((e) => e.state !== 'waiting')
  const others = useOthersEntries().length > 0
  return (
    (parked || others) && (
      <Suspense fallback={null}>
        <SetAside />
      </Suspense>
    )
  )
}

/** Frame of every desk view: name, places, save state, units, theme, help. */
export function Frame() {
  const [help, setHelp] = useState(false)
  const navigate = useNavigate()
  const system = units.use()
  const shade = theme.use()
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      const typing =
        e.target instanceof HTMLElement && e.target.closest('input, textarea, select, [contenteditable]')
      if (typing || e.ctrlKey || e.metaKey || e.altKey || singleKeys.get() === 'off') return
      if (e.key === '?') setHelp(true)
      else if (e.key === '1') void navigate('/')
      else if (e.key === '2') void navigate('/tanks')
      else if (e.key === '3') void navigate('/library')
      else if (e.key === '4') void navigate('/rules')
      else if (e.key === '/') {
        const search = document.querySelector<HTMLInputElement>('input[type=search]')
        if (search) {
          e.preventDefault()
          search.focus()
        }
      }
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [navigate])
  const place = ({ isActive }: { isActive: boolean }): string =>
    `py-1 border-b-2 ${isActive ? 'border-base-content font-bold' : 'border-transparent hover:border-base-300'}`
  return (
    <div className="flex min-h-screen flex-col">
      <a href="#main" className="btn btn-sm sr-only focus:not-sr-only focus:absolute focus:z-50">
        Skip to the content
      </a>
      <header className="border-base-content no-print flex flex-wrap items-center gap-x-6 gap-y-1 border-b px-4 py-1 sm:px-6">
        <NavLink to="/" className="flex items-center gap-2 text-[1.15rem] font-bold tracking-tight">
          <Glyph />
          Ypsometer
        </NavLink>
        <nav aria-label="Places" className="flex flex-wrap gap-x-4 sm:gap-x-5">
          <NavLink to="/" end className={place}>
            Shelf
          </NavLink>
          <NavLink to="/tanks" className={place}>
            Tanks
          </NavLink>
          <NavLink to="/advise" className={place}>
            Advise
          </NavLink>
          <NavLink to="/upkeep" className={place}>
            Maintenance
          </NavLink>
          <NavLink to="/faults" className={place}>
            Faults
          </NavLink>
          <NavLink to="/reviews" className={place}>
            Reviews
          </NavLink>
          <NavLink to="/library" className={place}>
            Library
          </NavLink>
          <NavLink to="/rules" className={place}>
            Rules
          </NavLink>
        </nav>
        <div className="ml-auto flex items-center gap-3">
          <SaveMark />
          <Who />
          <label className="flex items-center">
            <span className="sr-only">Units</span>
            <select
              className="field !w-auto !min-h-0 !py-0.5 text-[0.9rem]"
              value={system}
              onChange={(e) => units.set(e.target.value as UnitSystem)}
            >
              {SYSTEMS.map(([k, words]) => (
                <option key={k} value={k}>
                  {words}
                </option>
              ))}
            </select>
          </label>
          <button
            type="button"
            className="btn btn-ghost btn-sm btn-square"
            aria-label={shade === 'paper' ? 'Switch to the dark theme' : 'Switch to the light theme'}
            onClick={() => theme.set(shade === 'paper' ? 'fishroom' : 'paper')}
          >
            {shade === 'paper' ? <Moon size={18} aria-hidden="true" /> : <Sun size={18} aria-hidden="true" />}
          </button>
          <button
            type="button"
            className="btn btn-ghost btn-sm btn-square"
            aria-label="Help"
            onClick={() => setHelp(true)}
          >
            <CircleHelp size={18} aria-hidden="true" />
          </button>
        </div>
      </header>
      <SomeSetAside />
      <BackupNote />
      <RoomNote />
      <main id="main" className="flex-1 px-4 pt-3 pb-6 sm:px-6">
        <Outlet />
      </main>
      <CompareTray />
      {help && (
        <Suspense fallback={null}>
          <Help onClose={() => setHelp(false)} />
        </Suspense>
      )}
      <Toasts />
    </div>
  )
}
