import { OutOfRange } from '../errors'
import { boreArea, type Fluid } from '../hydraulics/segments'
import { BadNetwork } from './bad'
import { branchesOf, lossOf, resistancesOf, type Member } from './branches'
import { checkElement, layerCoefficients, type Element } from './elements'
import { graphOf, type Graph } from './graph'
import { byHeads } from './matrix'
import { step, type Method } from './method'
import { byRows } from './rows'

/** A graph of elements. Nodes are named by the elements' ends; those in `heads` (m) are open water of a known level. */
export interface Network {
  readonly elements: readonly Element[]
  readonly heads: Readonly<Record<string, number>>
  /** Flow (m³/s) that is let in at a node from outside, whatever its head; negative where it is drawn off. */
  readonly inflows?: Readonly<Record<string, number>>
  readonly fluid: Fluid
}

/** Flow (m³/s) and head lost (m, negative where a pump gives) of an element. */
export interface ElementResult {
  readonly element: Element
  readonly flow: number
  readonly loss: number
}

/** Solution of a network. Losses and heads follow from the flows, and are worked out when first asked for. */
export interface Solution {
  /** Flows (m³/s) of the elements in their order. */
  readonly flows: readonly number[]
  /** Head lost (m) in an element, by its place. */
  readonly lossIn: (i: number) => number
  /** The elements in their order, with flow and loss. */
  readonly results: readonly ElementResult[]
  /** Heads (m) at the nodes. */
  readonly heads: Readonly<Record<string, number>>
  /** Steps of Newton's method taken. */
  readonly iterations: number
}

const START_VELOCITY = 0.1
const MAX_ITERATIONS = 200
/** Newton's method squares the error: after a change this small, what is left is some 1e-11 of the flows. */
const SETTLED = 1e-5

/**
 * Heads and flows of a network by the global gradient method: Newton's method on all flows and heads at once. Elements
 * in a row are one branch; what is made of rows and ways side by side is solved along them, any other network by its
 * heads.
 *
 * Source: Todini and Pilati, in Computer Applications in Water Supply (1988); Todini and Rossman, J. Hydraul. Eng. 139
 * (2013) 511; as in the EPANET 2.2 manual, section 12.1.
 * @throws OutOfRange naming `elements[id].field`; BadNetwork naming the element or node that makes it singular.
 */
export const solveNetwork = (network: Network): Solution => prepareNetwork(network)()

/**
 * Checks and reduces a network once; the function that comes back solves it, from the same start each time, or with
 * other elements in the place of its own that differ from them in the sizes and resistances of layers only. `general`
 * solves it by its heads even where it could be solved along its rows.
 */
export function prepareNetwork(
  network: Network,
  general = false,
): (elements?: readonly Element[]) => Solution {
  const { elements, heads, inflows, fluid } = network
  if (!elements.length) throw new BadNetwork('elements', 'The network has no elements.')
  for (let i = 0; i < elements.length; i++) checkElement(elements[i] as Element)
  const graph = graphOf(elements, heads, inflows)
  checkTopology(network, graph)
  const usual = (members: readonly Member[]): number => usualFlow(members, elements)
  const method: Method =
    (general || inflows ? null : byRows(branchesOf(elements, graph, fluid), graph, usual)) ??
    byHeads(branchesOf(elements, graph, fluid), graph, usual)

  let laid = elements
  let losses: ReturnType<typeof resistancesOf> | null = null
  const relay = (now: readonly Element[]): void => {
    elements.forEach(({ id, kind }, i) => {
      const e = now[i]
      if (e === laid[i]) return
      if (e?.kind !== 'layer' || kind !== 'layer' || e.id !== id)
        throw new BadNetwork(`elements[${id}]`, 'Of a prepared network only layers can be laid anew.')
      checkElement(e)
    })
    losses ??= resistancesOf(elements, fluid)
    for (let i = 0; i < elements.length; i++) {
      const e = now[i] as Element
      if (e === laid[i] || e.kind !== 'layer') continue
      const { linear, quadratic } = layerCoefficients(e, fluid)
      losses.linear[i] = linear
      losses.quadratic[i] = quadratic
    }
    laid = now
    method.relay(losses.linear, losses.quadratic)
  }

  return (now = elements) => {
    if (now !== laid) relay(now)
    const solved = now === elements ? network : { ...network, elements: now }
    method.reset()
    let before = Infinity
    for (let i = 1; i <= MAX_ITERATIONS; i++) {
      method.step()
      const { changed } = step
      // A step that grows the change again is taken half: flaps and weirs may otherwise flutter.
      if (i > 20 && changed > before) method.halve()
      else if (changed <= SETTLED * step.total + 1e-15) return new Solved(solved, method.read(), i)
      before = changed
    }
    throw new BadNetwork('elements', 'The network does not settle: an element may be far out of the usual.')
  }
}

class Solved implements Solution {
  #results: readonly ElementResult[] | null = null
  #heads: Readonly<Record<string, number>> | null = null

  constructor(
    private readonly network: Network,
    readonly flows: readonly number[],
    readonly iterations: number,
  ) {}

  lossIn(i: number): number {
    const e = this.network.elements[i] as Element
    const q = this.flows[i] as number
    if (e.kind !== 'layer') return lossOf(e, this.network.fluid)(q)
    const { linear, quadratic } = layerCoefficients(e, this.network.fluid)
    return (linear + quadratic * Math.abs(q)) * q
  }

  get results(): readonly ElementResult[] {
    return (this.#results ??= this.network.elements.map((element, i) => ({
      element,
      flow: this.flows[i] as number,
      loss: this.lossIn(i),
    })))
  }

  /**
   * From open water along the elements; through what is shut last, because its loss hangs on a flow of nearly nothing.
   */
  get heads(): Readonly<Record<string, number>> {
    if (this.#heads) return this.#heads
    const heads: Record<string, number> = { ...this.network.heads }
    const shut = (r: ElementResult): boolean =>
      (r.element.kind === 'weir' || r.element.kind === 'pump') && r.flow <= 0
    for (let left = [...this.results]; left.length;) {
      const reach = (r: ElementResult): boolean => r.element.from in heads || r.element.to in heads
      const next = left.filter((r) => reach(r) && !shut(r))
      const taken = next.length ? next : left.filter(reach)
      if (!taken.length) break
      for (const { element: e, loss } of taken) {
        const from = heads[e.from]
        const to = heads[e.to]
        if (from === undefined) heads[e.from] = (to as number) + loss
        else if (to === undefined) heads[e.to] = from - loss
      }
      const done = new Set(taken)
      left = left.filter((r) => !done.has(r))
    }
    return (this.#heads = heads)
  }
}

/** A first flow of a row of elements: its pump’s, else the mean of what its elements usually carry, along it. */
function usualFlow(members: readonly Member[], elements: readonly Element[]): number {
  let sum = 0
  for (const m of members) {
    const e = elements[m.index] as Element
    const q = m.sign * startFlow(e)
    if (e.kind === 'pump') return q
    sum += q
  }
  return members.length ? sum / members.length : 0
}

/** A first flow of every element, of the size its bore or area usually carries. */
function startFlow(e: Element): number {
  switch (e.kind) {
    case 'pump':
      return e.pump.maxFlow / 2
    case 'hose':
    case 'fitting':
      return START_VELOCITY * boreArea(e.diameter)
    case 'orifices':
      return START_VELOCITY * e.holes * boreArea(e.holeDiameter)
    case 'layer':
      return 0.005 * e.area
    case 'slot':
      return 0.05 * e.gap * e.perimeter
    case 'weir':
      return 1e-6
  }
}

/** Every node must be joined to open water, and something must drive the water. */
function checkTopology(
  { elements, heads, inflows = {} }: Network,
  { names, from, to, at, level }: Graph,
): void {
  const ids = new Set<string>()
  let pumps = 0
  for (const e of elements) {
    if (ids.has(e.id)) throw new BadNetwork(`elements[${e.id}]`, `Two elements are called “${e.id}”.`)
    ids.add(e.id)
    if (e.from === e.to)
      throw new BadNetwork(`elements[${e.id}].to`, `“${e.label}” ends where it begins, at ${e.from}.`)
    if (e.kind === 'pump') pumps++
  }
  for (const [name, h] of Object.entries(heads))
    if (!Number.isFinite(h)) throw new OutOfRange(`heads.${name}`, h, { words: 'a level in metres' })
  for (const [name, q] of Object.entries(inflows)) {
    if (!Number.isFinite(q)) throw new OutOfRange(`inflows.${name}`, q, { words: 'a flow in m³/s' })
    if (!names.includes(name))
      throw new BadNetwork(`inflows.${name}`, `Water is let in at ${name}, where nothing is joined.`)
  }
  const levels = level.filter((h) => h !== null)
  if (!levels.length)
    throw new BadNetwork(
      'heads',
      'No open water is joined: name at least one node of a known level, such as the tank.',
    )
  const reached = level.map((h) => h !== null)
  const todo = names.map((_, node) => node).filter((node) => reached[node])
  for (let node = todo.pop(); node !== undefined; node = todo.pop())
    for (const i of at[node] ?? [])
      for (const end of [from[i] as number, to[i] as number])
        if (!reached[end]) {
          reached[end] = true
          todo.push(end)
        }
  const lost = elements.find((_, i) => !reached[from[i] as number])
  if (lost)
    throw new BadNetwork(
      `elements[${lost.id}]`,
      `“${lost.label}” is joined to no open water, so nothing fixes its head.`,
    )
  const driven = pumps > 0 || Object.values(inflows).some((q) => q !== 0)
  if (!driven && Math.max(...levels) - Math.min(...levels) < 1e-12)
    throw new BadNetwork(
      'elements',
      'Nothing drives the water: there is no pump, and all open water is at one level.',
    )
}
