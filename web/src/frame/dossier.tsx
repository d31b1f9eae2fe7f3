import type { Dossier } from '@ypsometer/contract'
import type { Assessment } from '@ypsometer/core/judging/assess'
import type { StockClass } from '@ypsometer/core/tanks/stock'
import { createContext, useContext } from 'react'

/** Context of every station of a dossier. */
export interface DossierContext {
  readonly dossier: Dossier
  readonly assessment: Assessment | null
  /** The classes as they are judged under the dossier’s house rule. */
  readonly stock: readonly StockClass[]
}
const Context = createContext<DossierContext | null>(null)
export function useDossierContext(): DossierContext {
  const context = useContext(Context)
  if (!context) throw new Error('This part of the page stands outside a dossier.')
  return context
}

interface ProviderProps extends Partial<DossierContext> {
  readonly dossier: Dossier
  readonly children: React.ReactNode
}

/** A dossier for what stands below it; in the bench posture nothing is computed, so no assessment is given. */
export const DossierProvider = ({ dossier, assessment = null, stock = [], children }: ProviderProps) => (
  <Context value={{ dossier, assessment, stock }}>{children}</Context>
)
