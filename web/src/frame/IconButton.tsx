import type { LucideIcon } from 'lucide-react'

interface Props {
  readonly label: string
  readonly icon: LucideIcon
  readonly onClick: () => void
  readonly disabled?: boolean
}

/** A small button that is only a picture; its label is read out and shown on hover. */
export function IconButton({ label, icon: Icon, onClick, disabled }: Props) {
  return (
    <button
      type="button"
      className="btn btn-ghost btn-xs btn-square"
      aria-label={label}
      title={label}
      disabled={disabled}
      onClick={onClick}
    >
      <Icon size={15} aria-hidden="true" />
    </button>
  )
}
