import { Worker } from 'node:worker_threads'

/** Asks from a thread of its own, so that what this process is busy with is not laid at the server's door. */
const ASKING = `
const { parentPort, workerData } = require('node:worker_threads')
let taken = []
parentPort.on('message', (m) => (m === 'clear' ? (taken = []) : parentPort.postMessage(taken)))
;(async () => {
  for (;;) {
    const from = performance.now()
    const status = await fetch(workerData).then((r) => r.arrayBuffer().then(() => r.status)).catch(() => 0)
    taken.push([performance.now() - from, status])
    await new Promise((r) => setTimeout(r, 25))
  }
})()`

export interface Beats {
  /** Milliseconds, shortest first. */
  readonly times: readonly number[]
  readonly refused: number
}

/** How an address is answered while something else goes on. */
export class Pulse {
  readonly #worker: Worker

  constructor(address: string) {
    this.#worker = new Worker(ASKING, { eval: true, workerData: address })
  }
  clear(): void {
    this.#worker.postMessage('clear')
  }
  async taken(): Promise<Beats> {
    const beats = await new Promise<readonly [number, number][]>((done) => {
      this.#worker.once('message', done)
      this.#worker.postMessage('taken')
    })
    return {
      times: beats.map(([ms]) => ms).sort((a, b) => a - b),
      refused: beats.filter(([, status]) => status !== 200).length,
    }
  }
  async stop(): Promise<void> {
    await this.#worker.terminate()
  }
}

/** The value at a share of a sorted list. */
export const at = (sorted: readonly number[], share: number): number =>
  sorted[Math.floor(share * (sorted.length - 1))] ?? NaN
