import { friction, type Correlation } from '../hydraulics/friction'
import { boreArea, STANDARD_GRAVITY, type Fluid } from '../hydraulics/segments'
import { layerCoefficients, quadraticCoefficient, slotCoefficients, type Element } from './elements'
import { passesThrough, type Graph } from './graph'

/** Whether what lets water one way only lies along its branch (1) or against it (−1). */
type Sign = 1 | -1

/** Like hoses of a branch joined to one: Re = perFlow |q|, h = f perFriction q|q|. */
interface Run {
  readonly perFlow: number
  readonly lnPerFlow: number
  perFriction: number
  readonly relative: number
}

/** A pump: h = H0 (exp(n (ln q − ln Q0)) − 1), which is H0 ((q/Q0)^n − 1) at a third of the cost. */
interface Lift {
  readonly shutOffHead: number
  readonly lnMaxFlow: number
  readonly exponent: number
  sign: Sign
}

/** A way that opens above a head difference. */
interface Weir {
  readonly sill: number
  readonly resistance: number
  sign: Sign
}

/** An element of a branch by its index, and which way it lies in it. */
export interface Member {
  readonly index: number
  sign: Sign
}

/** Elements in a row, reduced to one loss: a q + b q|q|, hoses, and what lets water one way. */
export interface Branch {
  linear: number
  quadratic: number
  readonly runs: Run[]
  readonly lifts: Lift[]
  readonly weirs: Weir[]
  readonly members: Member[]
  readonly correlation: Correlation
}

/** A branch between two nodes of a graph. */
export interface Between {
  from: number
  to: number
  readonly branch: Branch
}

/** Slope of what lets nothing back (m per m³/s): a thousandth of a litre an hour costs ten metres. */
const SHUT = 1e10

/**
 * Head lost in a branch (m) and its slope (m per m³/s) at a flow, left in {@link lost}: nothing is made for each of
 * many evaluations.
 */
export const lost = { head: 0, slope: 0 }

/** Evaluates a branch at flow q (m³/s) into {@link lost}. */
export function evaluate(b: Branch, q: number): void {
  const size = Math.abs(q)
  let head = (b.linear + b.quadratic * size) * q
  let slope = b.linear + 2 * b.quadratic * size
  const { runs, lifts, weirs } = b
  const ln = runs.length + lifts.length > 0 ? Math.log(size) : 0
  for (let i = 0; i < runs.length; i++) {
    const r = runs[i] as Run
    const re = r.perFlow * size
    if (re <= 2000) {
      // 64/Re makes the loss linear: written so, it holds down to no flow at all.
      const laminar = (64 * r.perFriction) / r.perFlow
      head += laminar * q
      slope += laminar
      continue
    }
    const { f, slope: s } = friction(re, r.relative, b.correlation, ln + r.lnPerFlow)
    const h = f * r.perFriction * size
    head += h * q
    slope += (2 + s) * h
  }
  for (let i = 0; i < lifts.length; i++) {
    const { shutOffHead, lnMaxFlow, exponent, sign } = lifts[i] as Lift
    head -= sign * shutOffHead
    const on = sign * q
    if (on > 0) {
      const taken = shutOffHead * Math.exp(exponent * (ln - lnMaxFlow))
      head += sign * taken
      slope += (exponent * taken) / on
    } else {
      head += SHUT * q
      slope += SHUT
    }
  }
  for (let i = 0; i < weirs.length; i++) {
    const { sill, resistance, sign } = weirs[i] as Weir
    head += sign * sill
    if (sign * q > 0) {
      head += resistance * size * q
      slope += 2 * resistance * size
    } else {
      head += SHUT * q
      slope += SHUT
    }
  }
  lost.head = head
  lost.slope = slope
}

function addRun(b: Branch, run: Run): void {
  for (const r of b.runs)
    if (r.perFlow === run.perFlow && r.relative === run.relative) {
      r.perFriction += run.perFriction
      return
    }
  b.runs.push(run)
}

/** Adds an element to the end of a branch. */
function add(b: Branch, e: Element, index: number, sign: Sign, fluid: Fluid): void {
  b.members.push({ index, sign })
  const g = fluid.gravity ?? STANDARD_GRAVITY
  switch (e.kind) {
    case 'pump': {
      const { shutOffHead, maxFlow, exponent } = e.pump
      b.lifts.push({ shutOffHead, lnMaxFlow: Math.log(maxFlow), exponent, sign })
      return
    }
    case 'weir':
      b.weirs.push({ sill: e.sill, resistance: e.resistance, sign })
      return
    case 'hose': {
      const perFlow = 4 / (Math.PI * e.diameter * fluid.kinematicViscosity)
      addRun(b, {
        perFlow,
        lnPerFlow: Math.log(perFlow),
        perFriction: e.length / (e.diameter * 2 * g * boreArea(e.diameter) ** 2),
        relative: e.roughness / e.diameter,
      })
      return
    }
    case 'layer':
    case 'slot': {
      const c = e.kind === 'layer' ? layerCoefficients(e, fluid) : slotCoefficients(e, fluid)
      b.linear += c.linear
      b.quadratic += c.quadratic
      return
    }
    default:
      b.quadratic += quadraticCoefficient(e, g) ?? 0
  }
}

/** Losses of a branch that are linear and quadratic in its flow, summed anew from those of the elements in it. */
export function resum(b: Branch, linear: Float64Array, quadratic: Float64Array): void {
  b.linear = 0
  b.quadratic = 0
  for (const { index } of b.members) {
    b.linear += linear[index] as number
    b.quadratic += quadratic[index] as number
  }
}

/** Linear and quadratic loss that each element adds to its branch. */
export function resistancesOf(
  elements: readonly Element[],
  fluid: Fluid,
): { readonly linear: Float64Array; readonly quadratic: Float64Array } {
  const linear = new Float64Array(elements.length)
  const quadratic = new Float64Array(elements.length)
  elements.forEach((e, i) => {
    const alone = emptyBranch(fluid.correlation)
    add(alone, e, i, 1, fluid)
    linear[i] = alone.linear
    quadratic[i] = alone.quadratic
  })
  return { linear, quadratic }
}

export const emptyBranch = (correlation: Correlation = 'colebrook'): Branch => ({
  linear: 0,
  quadratic: 0,
  runs: [],
  lifts: [],
  weirs: [],
  members: [],
  correlation,
})

/** Head lost (m) in a single element at flow q (m³/s), as a function. Elements are checked before: see checkElement. */
export function lossOf(e: Element, fluid: Fluid): (q: number) => number {
  const branch = emptyBranch(fluid.correlation)
  add(branch, e, 0, 1, fluid)
  return (q) => {
    evaluate(branch, q)
    return lost.head
  }
}

/** Puts a branch at the end of another: what it was made of is the other’s then. */
export function append(to: Branch, more: Branch): void {
  to.linear += more.linear
  to.quadratic += more.quadratic
  for (const r of more.runs) addRun(to, r)
  to.lifts.push(...more.lifts)
  to.weirs.push(...more.weirs)
  to.members.push(...more.members)
}

/** Turns a branch round, to be looked at from its other end. */
export function turn(b: Branch): void {
  for (const list of [b.lifts, b.weirs, b.members]) for (const x of list) x.sign = x.sign > 0 ? -1 : 1
}

/** Joins elements that stand in a row to branches. */
export function branchesOf(elements: readonly Element[], graph: Graph, fluid: Fluid): Between[] {
  const { from, to, at } = graph
  const used = elements.map(() => false)
  const out: Between[] = []
  /** The other element at a node that is passed, and the node beyond an element. */
  const next = (node: number, index: number): number => {
    const [a, b] = at[node] as readonly [number, number]
    return a === index ? b : a
  }
  const beyond = (node: number, index: number): number =>
    (from[index] === node ? to[index] : from[index]) as number
  for (let start = 0; start < elements.length; start++) {
    if (used[start]) continue
    // Back to where the row begins, or once round a ring; then along it.
    let node = from[start] as number
    let index = start
    while (passesThrough(graph, node)) {
      const before = next(node, index)
      if (before === start) break
      node = beyond(node, before)
      index = before
    }
    const row: Between = { from: node, to: node, branch: emptyBranch(fluid.correlation) }
    while (!used[index]) {
      used[index] = true
      add(row.branch, elements[index] as Element, index, from[index] === node ? 1 : -1, fluid)
      node = beyond(node, index)
      if (!passesThrough(graph, node)) break
      index = next(node, index)
    }
    row.to = node
    out.push(row)
  }
  return out
}
