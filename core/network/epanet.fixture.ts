import { Project } from 'epanet-js'
import { epanetWorkspace } from '../hydraulics/epanet.fixture'
import { toInp } from './inp'
import type { Network } from './solve'

/** Runs the EPANET engine on a network; flows (m³/s) of its elements in their order, and a way to run it again. */
export async function openEpanet(network: Network, topFlow: number) {
  const workspace = await epanetWorkspace()
  const project = new Project(workspace)
  const text = toInp(network, topFlow)
  workspace.writeFile('n.inp', text)
  try {
    project.open('n.inp', 'n.rpt', 'n.out')
  } catch (error) {
    throw new Error(`${String(error)}\n${workspace.readFile('n.rpt', 'utf8')}\n${text.slice(0, 3000)}`, {
      cause: error,
    })
  }
  const links = network.elements.map((e, i) =>
    project.getLinkIndex(/^[\w.-]{1,28}$/.test(e.id) ? e.id : `E${i + 1}`),
  )
  project.openH()
  return {
    solve: (): readonly number[] => {
      project.initH(10)
      project.runH()
      return links.map((l) => project.getLinkValue(l, 8) / 60000)
    },
    close: (): void => {
      project.closeH()
      project.close()
    },
  }
}
