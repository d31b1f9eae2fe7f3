import type { Dossier, Trial } from '@ypsometer/contract'
import { ArrowLeft, Settings2, Undo2 } from 'lucide-react'
import { useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import { KeptNote } from '../../frame/KeptNote'
import { Toasts } from '../../frame/Toasts'
import { useTrialView } from '../view'
import { Conditions } from '../Conditions'
import { useAwake } from './useAwake'
import { Heading } from '../../frame/Heading'

interface Props {
  readonly dossier: Dossier
  readonly trial: Trial
  /** Opens on the conditions, as a trial without readings does. */
  readonly fresh: boolean
  readonly status: ReactNode
  readonly undo?: { readonly label: string; readonly run: () => void; readonly off?: boolean }
  /** Lower half of the screen: one button as large as a hand, or a few. */
  readonly lower: ReactNode
  readonly children: ReactNode
  /** Tells a screen that the conditions are open, when keys must not act. */
  readonly onSetup?: (open: boolean) => void
}

/**
 * The frame of every bench screen: where one is, the conditions behind one button, one thing above, large targets
 * below.
 */
export function Shell({ dossier, trial, fresh, status, undo, lower, children, onSetup }: Props) {
  const { title } = useTrialView()
  const [setup, setSetup] = useState(fresh)
  useAwake()
  const show = (on: boolean): void => {
    setSetup(on)
    onSetup?.(on)
  }
  return (
    <div className="flex h-dvh flex-col">
      <header className="rule-b flex items-center gap-3 px-3 py-1.5">
        <Link
          to={`/models/${trial.modelId}/bench`}
          className="btn btn-ghost h-14 w-14 p-0"
          aria-label="Back to Bench"
        >
          <ArrowLeft aria-hidden="true" />
        </Link>
        <div className="min-w-0 flex-1 leading-tight">
          <Heading part={title} className="truncate text-[1.15rem]">
            {dossier.model.name}
          </Heading>
          <p className="muted truncate text-[0.9rem]">{title}</p>
          <KeptNote />
        </div>
        <button
          type="button"
          className="btn btn-ghost h-14 px-3"
          aria-expanded={setup}
          onClick={() => show(!setup)}
        >
          <Settings2 aria-hidden="true" /> Conditions
        </button>
      </header>
      <main className="flex min-h-0 flex-1 flex-col">
        {setup ? (
          <div className="min-h-0 flex-1 overflow-y-auto px-4 py-3">
            <Conditions trial={trial} hookups={dossier.hookups} onDone={() => show(false)} />
          </div>
        ) : (
          <div className="flex min-h-0 flex-1 flex-col overflow-y-auto px-4 pt-2 sm:mx-auto sm:w-full sm:max-w-3xl">
            {children}
          </div>
        )}
      </main>
      {!setup && (
        <>
          <div className="flex items-center justify-between gap-3 px-4 pb-2">
            <p role="status" className="muted min-w-0 flex-1 text-[0.95rem] leading-snug">
              {status}
            </p>
            {undo && (
              <button
                type="button"
                className="btn h-14 px-5 text-[1.05rem]"
                disabled={undo.off ?? false}
                onClick={undo.run}
              >
                <Undo2 aria-hidden="true" /> {undo.label}
              </button>
            )}
          </div>
          <Toasts />
          {lower}
        </>
      )}
    </div>
  )
}

/** The button on the whole lower half, with the clock on it. */
export function BigButton({
  running,
  seconds,
  onPress,
  label,
  hint = 'or the space bar',
  half,
}: {
  readonly running: boolean
  readonly seconds: number | null
  readonly onPress: () => void
  readonly label: string
  readonly hint?: string
  /** Shares the lower half with others. */
  readonly half?: boolean
}) {
  return (
    <button
      type="button"
      className={`flex w-full cursor-pointer flex-col items-center justify-center select-none ${half ? 'min-h-28 flex-1' : 'h-[46dvh] min-h-44 shrink-0'} ${running ? 'bg-primary text-primary-content' : 'bg-base-content text-base-100'}`}
      style={{ touchAction: 'manipulation' }}
      onPointerDown={(e) => e.button === 0 && onPress()}
      onKeyDown={(e) => e.key === 'Enter' && !e.repeat && onPress()}
    >
      {seconds !== null && (
        <span
          className={`num leading-none font-semibold ${half ? 'text-[3rem]' : 'text-[4.6rem]'}`}
          aria-hidden="true"
        >
          {seconds.toFixed(half ? 1 : 2)}
          <span className="ml-2 text-[1.6rem] opacity-80">s</span>
        </span>
      )}
      <span className="mt-3 px-4 text-center text-[1.7rem] leading-tight font-bold">{label}</span>
      <span className="mt-1 text-[1rem] opacity-80">{hint}</span>
    </button>
  )
}

/** The smaller answer that shares the lower half with a {@link BigButton}. */
export const SecondButton = ({
  label,
  hint,
  onPress,
}: {
  readonly label: string
  readonly hint?: string
  readonly onPress: () => void
}) => (
  <button
    type="button"
    className="bg-base-300 flex min-h-24 flex-1 cursor-pointer flex-col items-center justify-center text-[1.5rem] font-bold"
    onPointerDown={(e) => e.button === 0 && onPress()}
    onKeyDown={(e) => e.key === 'Enter' && !e.repeat && onPress()}
  >
    {label}
    {hint && <span className="text-[1rem] font-normal opacity-80">{hint}</span>}
  </button>
)

/** A row of choices, one of them taken; large enough for a wet thumb. */
export function Chips<T extends string>({
  label,
  options,
  value,
  onChange,
}: {
  readonly label: string
  readonly options: readonly (readonly [T, string])[]
  readonly value: T
  readonly onChange: (v: T) => void
}) {
  return (
    <div className="flex flex-wrap gap-2 py-1" role="group" aria-label={label}>
      {options.map(([v, words]) => (
        <button
          key={v}
          type="button"
          aria-pressed={v === value}
          className={`btn h-14 px-4 text-[1.05rem] ${v === value ? 'btn-neutral' : ''}`}
          onClick={() => onChange(v)}
        >
          {words}
        </button>
      ))}
    </div>
  )
}
