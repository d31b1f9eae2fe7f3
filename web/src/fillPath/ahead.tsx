import { CoreError } from '@ypsometer/core/errors/errors'
import { tankBalance } from '@ypsometer/core/judging/tankBalance'
import type { JudgedFill } from '@ypsometer/core/judging/fills'
import type { Dossier, Tank } from '@ypsometer/contract'
import { fittingOf } from '@ypsometer/contract/candidate'
import type { StockClass } from '@ypsometer/core/tanks/stock'
import { useMemo } from 'react'
import { useTanks } from '../api/lists'
import { useDossierContext } from '../frame/dossier'
import { readTank } from '../tank/readTank'
import { scenarioOn, waterShutIn } from '../tank/scenarioOn'
import { useSimulation } from '../workers/useLiving'
import { useFillPath } from './useFillPath'
import { useSeason } from './useSeason'

/** Works out what Fill and Path show first. */
function FillAhead() {
  useFillPath()
  return null
}

/** Works out what Visits shows first, and goes on with it once that is open. */
function SeasonAhead() {
  useSeason()
  return null
}

/** First scenario of a tank; null where nothing can be told of it. */
function firstStory(tank: Tank, classes: readonly StockClass[], fill: JudgedFill, dossier: Dossier) {
  const read = readTank(tank, classes)
  if ('problem' in read) return null
  try {
    const balance = tankBalance(read.record, fill)
    return (
      balance && scenarioOn(balance, fill, undefined, undefined, waterShutIn(dossier, fittingOf(dossier)))
    )
  } catch (error) {
    if (error instanceof CoreError) return null
    throw error
  }
}

/** Works out what Tanks tells first: what happens in time in the first of them. */
function StoryAhead() {
  const { dossier, assessment, stock } = useDossierContext()
  const { tanks } = useTanks()
  const fill = assessment?.verdict.shipped
  const history = useMemo(
    () => (tanks?.[0] && fill ? firstStory(tanks[0], stock, fill, dossier) : null),
    [tanks, stock, fill, dossier],
  )
  useSimulation(history)
  return null
}

const AHEAD: Readonly<Record<string, () => null>> = {
  bench: FillAhead,
  path: StoryAhead,
  verdict: SeasonAhead,
  visits: SeasonAhead,
}

/** Questions of the next station to a worker, asked before it is opened. */
export default function Ahead({ station }: { readonly station: string }) {
  const Work = AHEAD[station]
  return Work ? <Work /> : null
}
