import { useId } from 'react'

/** A named group of large keys. */
export function KeyGroup({ name, children }: { readonly name: string; readonly children: React.ReactNode }) {
  const id = useId()
  return (
    <div role="group" aria-labelledby={id}>
      <p className="kicker" id={id}>
        {name}
      </p>
      <div className="mt-1 flex flex-wrap items-center gap-2">{children}</div>
    </div>
  )
}

interface KeyProps {
  readonly on: boolean
  readonly onTap: () => void
  readonly children: React.ReactNode
}

/** A key as large as a thumb that is on or off. */
export const Key = ({ on, onTap, children }: KeyProps) => (
  <button
    type="button"
    aria-pressed={on}
    onClick={onTap}
    className={`rounded-field min-h-12 border px-3.5 py-1.5 text-left leading-tight ${
      on ? 'bg-primary text-primary-content border-primary font-bold' : 'border-base-300 hover:bg-base-200'
    }`}
  >
    {children}
  </button>
)
