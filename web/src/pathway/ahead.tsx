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

const AHEAD: Readonly<Record<string, () => null>> = {
  bench: FillAhead,
  verdict: SeasonAhead,
  visits: SeasonAhead,
}

/** What the station after this one asks of a worker, asked before it is opened. */
export default function Ahead({ station }: { readonly station: string }) {
  const Work = AHEAD[station]
  return Work ? <Work /> : null
}
