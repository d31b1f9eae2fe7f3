import { friction, type Correlation } from '../hydraulics/friction'
import { STANDARD_GRAVITY, type Fluid } from '../hydraulics/segments'
import {
  layerCoefficients,
  lossOf,
  quadraticCoefficient,
  slotCoefficients,
  type Element,
  type Loss,
} from './elements'

/** Like hoses of a branch joined to one: Re = perFlow |q|, h = f perFriction q|q|. */
interface Run {
  readonly perFlow: number
  perFriction: number
  readonly relative: number
}

/** An element that lets water one way only, and whether the branch runs along it (1) or against it (−1). */
interface OneWay {
  readonly loss: Loss
  readonly sign: 1 | -1
}

/** Elements in a row between two junctions, reduced to one loss: a q + b q|q|, hoses, and what lets water one way. */
export interface Branch {
  readonly from: string
  readonly to: string
  linear: number
  quadratic: number
  readonly runs: Run[]
  readonly oneWay: OneWay[]
  /** Its elements by their index, and which way each lies in it. */
  readonly members: readonly { readonly index: number; readonly sign: 1 | -1 }[]
  readonly correlation: Correlation
}

/** Head lost in a branch and its slope at a flow, left in {@link lost}: nothing is made for each of many evaluations. */
export const lost = { head: 0, slope: 0 }

/** Evaluates a branch at flow q (m³/s) into {@link lost}. */
export function evaluate(b: Branch, q: number): void {
  const size = Math.abs(q)
  let head = (b.linear + b.quadratic * size) * q
  let slope = b.linear + 2 * b.quadratic * size
  const { runs, oneWay } = b
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
    const { f, slope: s } = friction(re, r.relative, b.correlation)
    const h = f * r.perFriction * size
    head += h * q
    slope += (2 + s) * h
  }
  for (let i = 0; i < oneWay.length; i++) {
    const { loss, sign } = oneWay[i] as OneWay
    const r = loss(sign * q)
    head += sign * r.h
    slope += r.slope
  }
  lost.head = head
  lost.slope = slope
}

const area = (d: number): number => (Math.PI * d * d) / 4

/** Adds an element to a branch. */
function join(b: Branch, e: Element, sign: 1 | -1, fluid: Fluid): void {
  const g = fluid.gravity ?? STANDARD_GRAVITY
  switch (e.kind) {
    case 'pump':
    case 'threshold':
      b.oneWay.push({ loss: lossOf(e, fluid), sign })
      return
    case 'hose': {
      const perFlow = 4 / (Math.PI * e.diameter * fluid.kinematicViscosity)
      const relative = e.roughness / e.diameter
      const perFriction = e.length / (e.diameter * 2 * g * area(e.diameter) ** 2)
      const like = b.runs.find((r) => r.perFlow === perFlow && r.relative === relative)
      if (like) like.perFriction += perFriction
      else b.runs.push({ perFlow, perFriction, relative })
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
    const members: { index: number; sign: 1 | -1 }[] = []
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
    const branch: Branch = {
      from,
      to: node,
      linear: 0,
      quadratic: 0,
      runs: [],
      oneWay: [],
      members,
      correlation: fluid.correlation ?? 'colebrook',
    }
    for (const m of members) join(branch, elements[m.index] as Element, m.sign, fluid)
    out.push(branch)
  }
  elements.forEach((_, i) => used[i] || follow(i))
  return out
}
