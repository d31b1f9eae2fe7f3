import { evaluate, lost, roughly, type Branch, type Member } from './branches'
import { LEAST_SLOPE, step, type Method } from './method'
import { ringsOf, type Part } from './rings'

/** A part and its state: its flow q, and Newton's line through its loss near there, a + b q. */
interface Row {
  readonly branch: Branch
  readonly groups: readonly Group[]
  readonly known: number
  a: number
  b: number
  q: number
  before: number
  /** Nothing but a linear and a quadratic loss stands in it. */
  readonly plain: boolean
  /** What it loses in the whole, roughly: linear q + quadratic q² − lift. */
  readonly linear: number
  readonly quadratic: number
  readonly lift: number
  /** A first flow where these three give none. */
  readonly usual: number
}

/** Rows side by side: near their common flow q they lose a + b q. */
interface Group {
  readonly rows: readonly Row[]
  a: number
  b: number
  readonly linear: number
  readonly quadratic: number
}

function rowOf(part: Part, usual: (members: readonly Member[]) => number): Row {
  const groups = part.groups.map((g) => groupOf(g.map((p) => rowOf(p, usual))))
  const own = roughly(part.branch)
  const { runs, lifts, sills } = part.branch
  return {
    plain: runs.length + lifts.length + sills.length + groups.length === 0,
    branch: part.branch,
    groups,
    known: part.known,
    a: 0,
    b: 0,
    q: 0,
    before: 0,
    linear: groups.reduce((s, g) => s + g.linear, own.linear),
    quadratic: groups.reduce((s, g) => s + g.quadratic, own.quadratic),
    lift: own.lift - part.known,
    usual: usual(part.branch.members),
  }
}

/** Whether water may only go one way in a row, so that its share is not guessed from its loss. */
const oneWay = ({ branch }: Row): boolean => branch.lifts.length + branch.sills.length > 0

function groupOf(rows: readonly Row[]): Group {
  const free = rows.filter((r) => !oneWay(r))
  const sum = (f: (r: Row) => number): number => free.reduce((s, r) => s + 1 / f(r), 0)
  return {
    rows,
    a: 0,
    b: 0,
    linear: free.length ? 1 / sum((r) => r.linear) : 0,
    quadratic: free.length ? 1 / sum((r) => Math.sqrt(r.quadratic)) ** 2 : 0,
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
      begin(side, oneWay(side) ? side.usual : guess(side, h))
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

/** A row and all rows in it. */
const within = (r: Row): Row[] => [r, ...r.groups.flatMap((g) => g.rows.flatMap(within))]

/**
 * Newton's steps where a network is made of rows and of ways side by side, as most filters are: the linear system of a step
 * is then solved by going once up and once down its rows, in the number of operations of its branches. Null where it is
 * not made so.
 */
export function byRows(
  branches: readonly Branch[],
  fixed: Readonly<Record<string, number>>,
  usual: (members: readonly Member[]) => number,
): Method | null {
  const rings = ringsOf(branches, fixed)?.map((p) => rowOf(p, usual))
  if (!rings) return null
  const all = rings.flatMap(within)
  const members = all.flatMap(({ branch }, row) => branch.members.map((m) => ({ ...m, row })))
  members.sort((x, y) => x.index - y.index)
  const count = members.length
  const places = Int32Array.from(members, (m) => m.row)
  const signs = Int32Array.from(members, (m) => m.sign)
  // Copied for each solution: numbers with a fraction, so that the copy is at once an array of such.
  const none = new Array<number>(count).fill(0.5)
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
    read: () => {
      const flows = none.slice()
      for (let i = 0; i < count; i++) flows[i] = (signs[i] as number) * (all[places[i] as number] as Row).q
      return flows
    },
  }
}
