import { OutOfRange } from '../errors'
import { boreArea, STANDARD_GRAVITY } from '../hydraulics/segments'
import { lossOf } from './branches'
import { quadraticCoefficient, type Element } from './elements'
import type { Network } from './solve'

/** EPANET’s own constants: ν at relative viscosity 1 is 1.1e-5 ft²/s, g is 32.2 ft/s² (EPANET 2.2 manual). */
export const EPANET_VISCOSITY = 1.1e-5 * 0.3048 ** 2
export const EPANET_GRAVITY = 32.2 * 0.3048

const MARK = ';ypsometer '
const lpm = (q: number): string => (q * 60000).toPrecision(15)

/**
 * A loss as a general-purpose-valve curve: points of flow (L/min) and head (m), closer together at small flows, because
 * EPANET joins them by straight lines.
 */
function lossCurve(id: string, e: Element, network: Network, top: number): string {
  const loss = lossOf(e, network.fluid)
  const points = Array.from({ length: 400 }, (_, i) => {
    const q = top * ((i + 1) / 400) ** 2
    return ` ${id} ${lpm(q)} ${loss(q).toPrecision(15)}`
  })
  return [` ${id} 0 0`, ...points].join('\n')
}

/** Names EPANET takes: no spaces, at most 31 characters. */
const safe = (id: string, i: number, letter: string): string =>
  /^[\w.-]{1,28}$/.test(id) ? id : `${letter}${i + 1}`

/**
 * A network as an EPANET 2.2 input file: open water as reservoirs, hoses and fittings as pipes, everything with a loss
 * of another form (layers, slots, orifices) as general-purpose valves. Each line of ours also carries its element
 * exactly, as a comment, so that {@link fromInp} gives back the very same network.
 *
 * A weir, which EPANET has no element for, is a valve whose curve begins at its sill. `topFlow` (m³/s) bounds the
 * valve curves.
 */
export function toInp(network: Network, topFlow = 0.01): string {
  const { elements, heads, inflows, fluid } = network
  const gravity = fluid.gravity ?? STANDARD_GRAVITY
  const nodes = [...new Set(elements.flatMap((e) => [e.from, e.to]))]
  const node = new Map(nodes.map((n, i) => [n, safe(n, i, 'N')]))
  const at = (n: string): string => node.get(n) ?? n
  const pipes: string[] = []
  const pumps: string[] = []
  const valves: string[] = []
  const curves: string[] = []
  elements.forEach((e, i) => {
    const id = safe(e.id, i, 'E')
    const line = `${id} ${at(e.from)} ${at(e.to)}`
    if (e.kind === 'pump') {
      pumps.push(` ${line} HEAD ${id}C`)
      const { shutOffHead: h0, maxFlow: q0, exponent: n } = e.pump
      curves.push(
        ` ${id}C 0 ${h0}\n ${id}C ${lpm(q0 / 2)} ${(h0 * (1 - 0.5 ** n)).toPrecision(15)}\n ${id}C ${lpm(q0)} 0`,
      )
    } else if (e.kind === 'hose')
      pipes.push(
        ` ${line} ${e.length} ${(e.diameter * 1000).toPrecision(15)} ${Math.max(e.roughness * 1000, 1e-7)} 0 Open`,
      )
    else if (e.kind === 'fitting') {
      const k = (quadraticCoefficient(e, gravity) ?? 0) * 2 * gravity * boreArea(e.diameter) ** 2
      pipes.push(` ${line} 1e-6 ${(e.diameter * 1000).toPrecision(15)} 1e-7 ${k.toPrecision(15)} Open`)
    } else {
      valves.push(` ${line} 1000 GPV ${id}C 0`)
      curves.push(lossCurve(`${id}C`, e, network, topFlow))
    }
  })
  const reservoirs = nodes.filter((n) => n in heads).map((n) => ` ${at(n)} ${heads[n]}`)
  const junctions = nodes
    .filter((n) => !(n in heads))
    .map((n) => ` ${at(n)} 0 ${inflows?.[n] ? lpm(-inflows[n]) : 0}`)
  return [
    '[TITLE]',
    'Ypsometer circuit',
    `${MARK}${JSON.stringify({ heads, ...(inflows && { inflows }), fluid })}`,
    ...elements.map((e) => `${MARK}${JSON.stringify(e)}`),
    '[JUNCTIONS]',
    ...junctions,
    '[RESERVOIRS]',
    ...reservoirs,
    '[PIPES]',
    ...pipes,
    '[PUMPS]',
    ...pumps,
    '[VALVES]',
    ...valves,
    '[CURVES]',
    ...curves,
    '[OPTIONS]',
    ' UNITS LPM',
    ' HEADLOSS D-W',
    ` VISCOSITY ${fluid.kinematicViscosity / EPANET_VISCOSITY}`,
    ' ACCURACY 0.00001',
    ' TRIALS 200',
    '[TIMES]',
    ' DURATION 0',
    '[REPORT]',
    ' STATUS NO',
    '[END]',
    '',
  ].join('\n')
}

/**
 * Reads a file written by {@link toInp} back into the same network.
 * @throws OutOfRange for a file of another program or one that was cut.
 */
export function fromInp(text: string): Network {
  const marked = text
    .split(/\r?\n/)
    .filter((l) => l.startsWith(MARK))
    .map((l) => l.slice(MARK.length))
  const [first, ...rest] = marked
  if (!first)
    throw new OutOfRange('inp', text.length, {
      words: 'a file exported from here: it carries the circuit in its comments',
    })
  try {
    const head = JSON.parse(first) as Pick<Network, 'heads' | 'inflows' | 'fluid'>
    return { ...head, elements: rest.map((l) => JSON.parse(l) as Element) }
  } catch {
    throw new OutOfRange('inp', text.length, { words: 'a whole file: a line of it cannot be read' })
  }
}
