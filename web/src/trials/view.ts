import { createContext, useContext } from 'react'
import type { TrialView } from './kind'

/** The kind of the trial that is open, for everything on its screen. */
export const TrialViewContext = createContext<TrialView | null>(null)

export function useTrialView(): TrialView {
  const view = useContext(TrialViewContext)
  if (!view) throw new Error('This part of the page is not inside a test.')
  return view
}
