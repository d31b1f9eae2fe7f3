import { airlift, type Riser } from '../hydraulics/airlift'

/** Measured airlift points beside the model's, with their overall ratio. Flows in m³/s. */
export interface AirliftComparison {
  readonly points: readonly { readonly air: number; readonly water: number; readonly model: number }[]
  /** Σ measured ÷ Σ model: 1 where the model holds. */
  readonly ratio: number
}

/** Holds measured water against the airlift model at the same air. @throws OutOfRange naming a riser's field. */
export function airliftAgainst(
  riser: Riser,
  measured: readonly { readonly air: number; readonly water: number }[],
): AirliftComparison {
  const points = measured.map((p) => ({ ...p, model: airlift(riser, p.air).flow }))
  const model = points.reduce((s, p) => s + p.model, 0)
  return { points, ratio: model > 0 ? points.reduce((s, p) => s + p.water, 0) / model : NaN }
}
