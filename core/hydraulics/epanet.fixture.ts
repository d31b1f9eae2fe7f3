import { Workspace, Project } from 'epanet-js'
import type { Circuit } from '../duty'
import type { Hose, Fitting } from '.'

/** EPANET's own constants: ν at relative viscosity 1 is 1.1e-5 ft²/s, g is 32.2 ft/s². */
export const EPANET_VISCOSITY = 1.1e-5 * 0.3048 ** 2
export const EPANET_GRAVITY = 32.2 * 0.3048

/**
 * A circuit as EPANET input text: reservoir, pump, pipes in series (fittings as minor losses of short pipes),
 * reservoir.
 */
export function toInp({ pump, segments, staticHead, fluid }: Circuit): string {
  const lpm = (q: number): string => (q * 60000).toPrecision(12)
  const parts = segments.filter((s): s is Hose | Fitting => s.kind !== 'spray-bar')
  const nodes = parts.slice(0, -1).map((_, i) => ` N${i + 1} 0 0`)
  const pipes = parts.map((s, i) => {
    const to = i === parts.length - 1 ? 'TANK' : `N${i + 1}`
    const length = s.kind === 'hose' ? s.length : 1e-6
    const rough = s.kind === 'hose' ? Math.max(s.roughness * 1000, 1e-7) : 1e-7
    const minor = s.kind === 'fitting' ? s.lossCoefficient * s.count : 0
    return ` P${i + 1} N${i} ${to} ${length} ${(s.diameter * 1000).toPrecision(12)} ${rough} ${minor.toPrecision(12)} Open`
  })
  const half = pump.maxFlow / 2
  return `[JUNCTIONS]
 N0 0 0
${nodes.join('\n')}
[RESERVOIRS]
 SRC 0
 TANK ${staticHead}
[PIPES]
${pipes.join('\n')}
[PUMPS]
 PU SRC N0 HEAD C
[CURVES]
 C 0 ${pump.shutOffHead}
 C ${lpm(half)} ${(pump.shutOffHead * (1 - 0.5 ** pump.exponent)).toPrecision(14)}
 C ${lpm(pump.maxFlow)} 0
[OPTIONS]
 UNITS LPM
 HEADLOSS D-W
 VISCOSITY ${fluid.kinematicViscosity / EPANET_VISCOSITY}
 ACCURACY 0.00001
 TRIALS 200
[TIMES]
 DURATION 0
[REPORT]
 STATUS NO
[END]
`
}

let engine: Promise<Workspace> | undefined
/** The EPANET engine, loaded once for all networks of a test file. */
export const epanetWorkspace = (): Promise<Workspace> =>
  (engine ??= (async () => {
    const workspace = new Workspace()
    await workspace.loadModule()
    return workspace
  })())

/** Opens EPANET on a circuit; `solve` runs the hydraulics and returns the pump's flow in m³/s. */
export async function epanet(circuit: Circuit): Promise<{ solve: () => number; close: () => void }> {
  const workspace = await epanetWorkspace()
  const project = new Project(workspace)
  workspace.writeFile('c.inp', toInp(circuit))
  try {
    project.open('c.inp', 'c.rpt', 'c.out')
  } catch (error) {
    throw new Error(`${String(error)}\n${workspace.readFile('c.rpt', 'utf8')}\n${toInp(circuit)}`, {
      cause: error,
    })
  }
  const link = project.getLinkIndex('PU')
  project.openH()
  return {
    solve: () => {
      project.initH(10)
      project.runH()
      return project.getLinkValue(link, 8) / 60000
    },
    close: () => {
      project.closeH()
      project.close()
    },
  }
}
