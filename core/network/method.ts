/**
 * A way to take the steps of Newton's method on all flows and heads of a network at once. The steps are the same; what
 * differs is how the linear system of each is solved.
 */
export interface Method {
  /** Back to the first flows. */
  readonly reset: () => void
  /** Takes a step, and leaves in {@link step} how far it went. */
  readonly step: () => void
  /** Takes half of the last step back. */
  readonly halve: () => void
  /** Takes other linear and quadratic losses, element by element: see `resistancesOf`. */
  readonly relay: (linear: Float64Array, quadratic: Float64Array) => void
  /** Flows (m³/s) of the elements in their order. */
  readonly read: () => number[]
}

/** Sums over all flows (m³/s): how far the last step took them, and how large they are now. */
export const step = { changed: 0, total: 0 }

/** Slopes below this (m per m³/s) are taken as this: a way without friction would make the system singular. */
export const LEAST_SLOPE = 1e-6
