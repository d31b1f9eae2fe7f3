import { friction, type Correlation } from '../hydraulics/friction'
import { STANDARD_GRAVITY, type Fluid } from '../hydraulics/segments'
import { layerCoefficients, quadraticCoefficient, slotCoefficients, type Element } from './elements'

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
  readonly sign: Sign
}

/** A way that opens above a head difference. */
interface Sill {
  readonly sill: number
  readonly resistance: number
  readonly sign: Sign
}

/** An element of a branch by its index, and which way it lies in it. */
export interface Member {
  readonly index: number
  readonly sign: Sign
}

/** Elements in a row between two junctions, reduced to one loss: a q + b q|q|, hoses, and what lets water one way. */
export interface Branch {
  readonly from: string
  readonly to: string
  linear: number
  quadratic: number
  readonly runs: Run[]
  readonly lifts: Lift[]
  readonly sills: Sill[]
  readonly members: readonly Member[]
  readonly correlation: Correlation
}

/** Slope of what lets nothing back (m per m³/s): a thousandth of a litre an hour costs ten metres. */
const SHUT = 1e10

/** Head lost in a branch (m) and its slope (m per m³/s) at a flow, left in {@link lost}: nothing is made for each of many evaluations. */
export const lost = { head: 0, slope: 0 }

/** Evaluates a branch at flow q (m³/s) into {@link lost}. */
export function evaluate(b: Branch, q: number): void {
  const size = Math.abs(q)
  let head = (b.linear + b.quadratic * size) * q
  let slope = b.linear + 2 * b.quadratic * size
  const { runs, lifts, sills } = b
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
  for (let i = 0; i < sills.length; i++) {
    const { sill, resistance, sign } = sills[i] as Sill
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

const area = (d: number): number => (Math.PI * d * d) / 4

function addRun(b: Branch, run: Run): void {
  const like = b.runs.find((r) => r.perFlow === run.perFlow && r.relative === run.relative)
  if (like) like.perFriction += run.perFriction
  else b.runs.push({ ...run })
}

/** Adds an element to a branch. */
function add(b: Branch, e: Element, sign: Sign, fluid: Fluid): void {
  const g = fluid.gravity ?? STANDARD_GRAVITY
  switch (e.kind) {
    case 'pump': {
      const { shutOffHead, maxFlow, exponent } = e.pump
      b.lifts.push({ shutOffHead, lnMaxFlow: Math.log(maxFlow), exponent, sign })
      return
    }
    case 'threshold':
      b.sills.push({ sill: e.sill, resistance: e.resistance, sign })
      return
    case 'hose': {
      const perFlow = 4 / (Math.PI * e.diameter * fluid.kinematicViscosity)
      addRun(b, {
        perFlow,
        lnPerFlow: Math.log(perFlow),
        perFriction: e.length / (e.diameter * 2 * g * area(e.diameter) ** 2),
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

const emptyBranch = (
  from: string,
  to: string,
  members: readonly Member[],
  correlation: Correlation,
): Branch => ({ from, to, linear: 0, quadratic: 0, runs: [], lifts: [], sills: [], members, correlation })

/** The loss of some elements in a row. */
function branchOf(
  elements: readonly Element[],
  members: readonly Member[],
  [from, to]: readonly [string, string],
  fluid: Fluid,
): Branch {
  const branch = emptyBranch(from, to, members, fluid.correlation ?? 'colebrook')
  for (const m of members) add(branch, elements[m.index] as Element, m.sign, fluid)
  return branch
}

/** Head lost (m) in a single element at flow q (m³/s), as a function. Elements are checked before: see checkElement. */
export function lossOf(e: Element, fluid: Fluid): (q: number) => number {
  const branch = branchOf([e], [{ index: 0, sign: 1 }], [e.from, e.to], fluid)
  return (q) => {
    evaluate(branch, q)
    return lost.head
  }
}

/** A friction factor of the size that hoses have. */
const USUAL_FRICTION = 0.03

/** What a branch loses, roughly: linear q + quadratic q² − lift, with a usual friction and parabolas for its pumps. */
export function roughly(b: Branch): {
  readonly linear: number
  readonly quadratic: number
  readonly lift: number
} {
  let { quadratic } = b
  for (const r of b.runs) quadratic += USUAL_FRICTION * r.perFriction
  for (const l of b.lifts) quadratic += l.shutOffHead * Math.exp(-2 * l.lnMaxFlow)
  const lifted = b.lifts.reduce((s, l) => s + l.sign * l.shutOffHead, 0)
  return { linear: b.linear, quadratic, lift: b.sills.reduce((s, x) => s - x.sign * x.sill, lifted) }
}

/** Two branches in a row, the second after the first. */
export function joined(first: Branch, second: Branch): Branch {
  const b = emptyBranch(first.from, second.to, [...first.members, ...second.members], first.correlation)
  for (const part of [first, second]) {
    b.linear += part.linear
    b.quadratic += part.quadratic
    for (const r of part.runs) addRun(b, r)
    b.lifts.push(...part.lifts)
    b.sills.push(...part.sills)
  }
  return b
}

/** A branch looked at from its other end. */
export function turned(b: Branch): Branch {
  const other = <T extends { readonly sign: Sign }>(list: readonly T[]): T[] =>
    list.map((x) => ({ ...x, sign: x.sign > 0 ? -1 : 1 }))
  return {
    ...b,
    from: b.to,
    to: b.from,
    lifts: other(b.lifts),
    sills: other(b.sills),
    members: other(b.members),
  }
}

/** A branch of no elements between two nodes, to hold what stands side by side there. */
export const nothing = (b: Branch): Branch => emptyBranch(b.from, b.to, [], b.correlation)

/**
 * Joins elements that stand in a row to branches: a node where just two elements meet, of no known level and with nothing
 * let in, is no junction.
 */
export function branchesOf(
  elements: readonly Element[],
  isOpen: (node: string) => boolean,
  fluid: Fluid,
): readonly Branch[] {
  const at = new Map<string, number[]>()
  elements.forEach((e, i) => {
    for (const n of [e.from, e.to]) {
      const list = at.get(n)
      if (list) list.push(i)
      else at.set(n, [i])
    }
  })
  const passes = (n: string): boolean => !isOpen(n) && at.get(n)?.length === 2
  const used = new Uint8Array(elements.length)
  const out: Branch[] = []
  const follow = (start: number): void => {
    const first = elements[start] as Element
    // Back to where the row begins, then along it.
    let node = first.from
    let index = start
    const seen = new Set([start])
    while (passes(node)) {
      const next: number | undefined = at.get(node)?.find((i) => i !== index)
      if (next === undefined || seen.has(next)) break
      seen.add(next)
      const e = elements[next] as Element
      node = e.to === node ? e.from : e.to
      index = next
    }
    const from = node
    const members: Member[] = []
    let e = elements[index] as Element
    for (;;) {
      used[index] = 1
      const sign = e.from === node ? 1 : -1
      members.push({ index, sign })
      node = sign > 0 ? e.to : e.from
      if (!passes(node)) break
      const next = at.get(node)?.find((i) => i !== index)
      if (next === undefined || used[next]) break
      index = next
      e = elements[index] as Element
    }
    out.push(branchOf(elements, members, [from, node], fluid))
  }
  elements.forEach((_, i) => used[i] || follow(i))
  return out
}
