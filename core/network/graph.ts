import type { Element } from './elements'

/** The elements between numbered nodes, in plain arrays: what preparing a network spends its time on. */
export interface Graph {
  readonly names: readonly string[]
  /** Node at which each element begins and ends. */
  readonly from: readonly number[]
  readonly to: readonly number[]
  /** The elements that meet at each node. */
  readonly at: readonly (readonly number[])[]
  /** Level (m) of the open water at each node; null at a junction. */
  readonly level: readonly (number | null)[]
  /** Flow (m³/s) let in at each node; null where none is spoken of. */
  readonly letIn: readonly (number | null)[]
}

export function graphOf(
  elements: readonly Element[],
  heads: Readonly<Record<string, number>>,
  inflows: Readonly<Record<string, number>> = {},
): Graph {
  const numbers = new Map<string, number>()
  const names: string[] = []
  const at: number[][] = []
  const level: (number | null)[] = []
  const letIn: (number | null)[] = []
  const from: number[] = []
  const to: number[] = []
  const number = (name: string): number => {
    const known = numbers.get(name)
    if (known !== undefined) return known
    numbers.set(name, names.length)
    at.push([])
    level.push(heads[name] ?? null)
    letIn.push(inflows[name] ?? null)
    return names.push(name) - 1
  }
  for (let i = 0; i < elements.length; i++) {
    const e = elements[i] as Element
    const a = number(e.from)
    const b = number(e.to)
    from.push(a)
    to.push(b)
    at[a]?.push(i)
    at[b]?.push(i)
  }
  return { names, from, to, at, level, letIn }
}

/** Whether the water of one element at a node must all go on into just one other. */
export const passesThrough = (g: Graph, node: number): boolean =>
  g.at[node]?.length === 2 && g.level[node] === null && g.letIn[node] === null
