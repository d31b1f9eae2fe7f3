import { useEffect, useRef } from 'react'
import { singleKeys } from '../../settings/settings'

/** Keys of the bench posture; `other` returns true for a key it has used. */
export interface BenchKeys {
  readonly space: () => void
  readonly backspace: () => void
  readonly other?: (key: string) => boolean
}

/**
 * Keys of the bench posture, wherever the focus is, except while typing: Space acts, Backspace takes back. None of
 * them where single keys are turned off (WCAG 2.2, 2.1.4).
 */
export function useBenchKeys(keys: BenchKeys): void {
  const now = useRef(keys)
  useEffect(() => {
    now.current = keys
  })
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      if (e.target instanceof HTMLElement && e.target.closest('input, select, textarea, dialog')) return
      if (e.ctrlKey || e.metaKey || e.altKey || singleKeys.get() === 'off') return
      if (e.key === ' ' || e.key === 'Backspace') {
        e.preventDefault()
        if (!e.repeat) (e.key === ' ' ? now.current.space : now.current.backspace)()
      } else if (now.current.other?.(e.key)) e.preventDefault()
    }
    // A focused button would fire again when the space bar is let go.
    const onUp = (e: KeyboardEvent): void => {
      if (e.key === ' ' && e.target instanceof HTMLButtonElement && singleKeys.get() === 'on')
        e.preventDefault()
    }
    window.addEventListener('keydown', onKey)
    window.addEventListener('keyup', onUp)
    return () => {
      window.removeEventListener('keydown', onKey)
      window.removeEventListener('keyup', onUp)
    }
  }, [])
}
