import type { Dossier, Reading, Trial } from '@ypsometer/contract'

/** What every bench screen is given: the trial and its readings in the order they were taken. */
export interface ScreenProps {
  readonly dossier: Dossier
  readonly trial: Trial
  readonly readings: readonly Reading[]
}
