import type { Chamber } from '@ypsometer/core/volumes/interior'

/** A point of the section in metres: x to the right, y upwards from the body's foot. */
export type Point = readonly [x: number, y: number]

export interface SceneChamber {
  readonly chamber: Chamber
  readonly outline: readonly Point[]
  /** The part above the usable height, which could hold media and does not; empty when there is none. */
  readonly wasted: readonly Point[]
  readonly centre: Point
}

/** Strokes that make a kind recognisable: what they are, and where. */
export interface SceneStroke {
  readonly what: 'glass' | 'hose' | 'tube' | 'air' | 'lid' | 'foot' | 'cup' | 'level' | 'stand'
  readonly points: readonly Point[]
}

/** A section drawing in metres, ready to be scaled. */
export interface Scene {
  readonly bounds: { readonly x0: number; readonly y0: number; readonly x1: number; readonly y1: number }
  readonly body: readonly Point[]
  readonly chambers: readonly SceneChamber[]
  readonly strokes: readonly SceneStroke[]
  /** Tank water beside or around the body. */
  readonly tankWater: readonly Point[]
  /** The ways of the water, each in flow order. */
  readonly paths: readonly (readonly Point[])[]
  /** False for kinds that have no box around their parts: the body is then only its outside measure. */
  readonly boxed: boolean
  readonly bubbles: readonly Point[]
  readonly impeller: { readonly at: Point; readonly radius: number } | null
}

export const rect = (x0: number, y0: number, x1: number, y1: number): readonly Point[] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
]

export const find = (list: readonly SceneChamber[], ...roles: Chamber['role'][]): SceneChamber | undefined =>
  list.find((c) => roles.includes(c.chamber.role))
