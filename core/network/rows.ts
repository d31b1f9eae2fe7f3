import { USUAL_FRICTION } from '../hydraulics/friction'
import { evaluate, lost, resum, type Between, type Member } from './branches'
import type { Graph } from './graph'
import { LEAST_SLOPE, step, type Method } from './method'
import { ringsOf, type Group, type Row } from './rings'

/** Fills in what a row and all that stands in it lose, roughly: with a usual friction, and parabolas for the pumps. */
function estimate(r: Row, usual: (members: readonly Member[]) => number): void {
  const { runs, lifts, weirs, members, linear, quadratic } = r.branch
  r.oneWay = lifts.length + weirs.length > 0
  r.plain = !r.oneWay && runs.length === 0 && r.groups.length === 0
  r.linear = linear
  r.quadratic = quadratic
  r.lift = -r.known
  for (const x of runs) r.quadratic += USUAL_FRICTION * x.perFriction
  for (const x of weirs) r.lift -= x.sign * x.sill
  for (const x of lifts) {
    r.quadratic += x.shutOffHead * Math.exp(-2 * x.lnMaxFlow)
    r.lift += x.sign * x.shutOffHead
  }
  r.usual = usual(members)
  for (const g of r.groups) {
    // Side by side, what lets water one way only is left out: it may be shut.
    let byLinear = 0
    let byQuadratic = 0
    for (const side of g.rows) {
      estimate(side, usual)
      if (side.oneWay) continue
      byLinear += 1 / side.linear
      byQuadratic += 1 / Math.sqrt(side.quadratic)
    }
    g.linear = byLinear > 0 ? 1 / byLinear : 0
    g.quadratic = byQuadratic > 0 ? 1 / (byQuadratic * byQuadratic) : 0
    r.linear += g.linear
    r.quadratic += g.quadratic
  }
}

/** The flow that roughly loses h in a row. */
function guess(r: Row, h: number): number {
  const lift = h + r.lift
  const size = Math.abs(lift)
  const q = (2 * size) / (r.linear + Math.sqrt(r.linear * r.linear + 4 * r.quadratic * size))
  return q > 0 && q < Infinity ? (lift < 0 ? -q : q) : r.usual
}

/** Gives a row its first flow, and what is in it shares of it. */
function begin(r: Row, q: number): void {
  r.q = q
  const { groups } = r
  for (let i = 0; i < groups.length; i++) {
    const { linear, quadratic, rows } = groups[i] as Group
    const h = (linear + quadratic * Math.abs(q)) * q
    for (let k = 0; k < rows.length; k++) {
      const side = rows[k] as Row
      begin(side, side.oneWay ? side.usual : guess(side, h))
    }
  }
}

/** Lays Newton's line through the loss of a row and of all that stands in it. */
function line(r: Row): void {
  const { branch, groups, q } = r
  if (r.plain) {
    const bend = branch.quadratic * Math.abs(q)
    r.b = Math.max(branch.linear + 2 * bend, LEAST_SLOPE)
    r.a = r.known + (branch.linear + bend - r.b) * q
    return
  }
  evaluate(branch, q)
  let b = Math.max(lost.slope, LEAST_SLOPE)
  let a = r.known + lost.head - b * q
  for (let i = 0; i < groups.length; i++) {
    const g = groups[i] as Group
    const { rows } = g
    // Side by side the flows add: q = Σ (h − aᵢ)/bᵢ.
    let inverse = 0
    let offset = 0
    for (let k = 0; k < rows.length; k++) {
      const side = rows[k] as Row
      line(side)
      const x = 1 / side.b
      inverse += x
      offset += side.a * x
    }
    g.b = 1 / inverse
    g.a = offset * g.b
    a += g.a
    b += g.b
  }
  r.a = a
  r.b = b
}

/** Gives a row its next flow, and what is in it its share of it. */
function share(r: Row, q: number): void {
  step.changed += Math.abs(q - r.q)
  step.total += Math.abs(q)
  r.before = r.q
  r.q = q
  const { groups } = r
  for (let i = 0; i < groups.length; i++) {
    const { a, b, rows } = groups[i] as Group
    const h = a + b * q
    for (let k = 0; k < rows.length; k++) {
      const side = rows[k] as Row
      share(side, (h - side.a) / side.b)
    }
  }
}

/** Adds a row and all rows in it. */
function gather(r: Row, into: Row[]): void {
  into.push(r)
  for (const g of r.groups) for (const side of g.rows) gather(side, into)
}

/**
 * Newton's steps where a network is made of rows and of ways side by side, as most filters are: the linear system of a
 * step is then solved by going once up and once down its rows, in the number of operations of its branches. Null where
 * it is not made so.
 */
export function byRows(
  branches: readonly Between[],
  graph: Graph,
  usual: (members: readonly Member[]) => number,
): Method | null {
  const rings = ringsOf(branches, graph)
  if (!rings) return null
  const all: Row[] = []
  for (const ring of rings) {
    estimate(ring, usual)
    gather(ring, all)
  }
  const count = graph.from.length
  const rows: Row[] = []
  const signs: number[] = []
  for (const r of all)
    for (const m of r.branch.members) {
      rows[m.index] = r
      signs[m.index] = m.sign
    }
  // Copied for each solution: numbers with a fraction, so that the copy is at once an array of such.
  const blank = new Array<number>(count).fill(0.5)
  return {
    reset: () => {
      for (let i = 0; i < rings.length; i++) {
        const ring = rings[i] as Row
        begin(ring, guess(ring, 0))
      }
    },
    step: () => {
      step.changed = 0
      step.total = 0
      for (let i = 0; i < rings.length; i++) {
        const ring = rings[i] as Row
        line(ring)
        share(ring, -ring.a / ring.b)
      }
    },
    halve: () => {
      for (const r of all) r.q = (r.q + r.before) / 2
    },
    relay: (linear, quadratic) => {
      for (const r of all) resum(r.branch, linear, quadratic)
      for (const ring of rings) estimate(ring, usual)
    },
    read: () => {
      const flows = blank.slice()
      for (let i = 0; i < count; i++) flows[i] = (signs[i] as number) * (rows[i] as Row).q
      return flows
    },
  }
}
