import { freePort, startRig, startServer } from '../scripts/lib/system.mjs'
import { copyOf } from '../scripts/lib/cluster.mjs'
import type { ChildProcess } from 'node:child_process'
import { connect } from 'node:net'

/**
 * What one worker of the browser tests has for itself: a server on the demo bench, its simulated instruments, and a
 * database copied from the one that was filled once for all.
 */
export class TestBench {
  private constructor(
    private readonly port: number,
    private readonly database: string,
    private rig: { child: ChildProcess; port: number; address: string },
    private server: ChildProcess,
  ) {}

  static async open(): Promise<TestBench> {
    const cluster = process.env.E2E_CLUSTER_URL
    if (!cluster) throw new Error('E2E_CLUSTER_URL is not set: run through Playwright')
    const database = await copyOf(cluster, 'demo')
    const rig = await startRig(await freePort())
    const port = await freePort()
    return new TestBench(port, database, rig, await serve(port, database, rig.address))
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`
  }

  /** Kills the server, as a crash would. */
  async stopServer(): Promise<void> {
    await killed(this.server)
  }
  /** Starts it again on the same database and port. */
  async startServer(): Promise<void> {
    this.server = await serve(this.port, this.database, this.rig.address)
  }
  /** Kills the simulated bench, and starts it anew at the same address. */
  async stopRig(): Promise<void> {
    await killed(this.rig.child)
  }
  async startRig(): Promise<void> {
    this.rig = await startRig(this.rig.port)
  }

  /** Says something to the simulated bench by SCPI; what its error queue answers. */
  tell(command: string): Promise<string> {
    return new Promise((resolve, reject) => {
      const socket = connect(this.rig.port, '127.0.0.1', () => socket.write(`${command};SYST:ERR?\n`))
      socket.once('data', (d) => {
        socket.destroy()
        resolve(String(d))
      })
      socket.once('error', reject)
    })
  }

  close(): void {
    this.server.kill('SIGKILL')
    this.rig.child.kill('SIGKILL')
  }
}

const serve = (port: number, databaseUrl: string, instruments: string): Promise<ChildProcess> =>
  startServer({ port, host: '127.0.0.1', databaseUrl, demo: true, instruments })

/** Kills a process and waits until it is gone, so that its port is free again. */
const killed = (child: ChildProcess): Promise<void> =>
  new Promise((done) => {
    if (child.exitCode !== null || child.signalCode !== null) return done()
    child.once('exit', () => done())
    child.kill('SIGKILL')
  })
