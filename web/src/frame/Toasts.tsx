import { X } from 'lucide-react'
import { dismiss, toasts } from './toastStore'

/** The messages that float, read out as they come. */
export function Toasts() {
  const floating = toasts.use()
  return (
    <div
      role="status"
      aria-live="polite"
      className="no-print fixed right-4 bottom-4 z-50 flex w-80 max-w-[calc(100vw-2rem)] flex-col gap-2"
    >
      {floating.map((t) => (
        <div
          key={t.id}
          className="bg-base-content text-base-100 flex items-center gap-3 px-4 py-2.5 shadow-lg"
        >
          <span className="flex-1">{t.text}</span>
          {t.action && (
            <button
              type="button"
              className="cursor-pointer font-bold underline underline-offset-3"
              onClick={() => {
                t.action?.run()
                dismiss(t.id)
              }}
            >
              {t.action.label}
            </button>
          )}
          <button type="button" className="cursor-pointer" aria-label="Dismiss" onClick={() => dismiss(t.id)}>
            <X size={16} aria-hidden="true" />
          </button>
        </div>
      ))}
    </div>
  )
}
