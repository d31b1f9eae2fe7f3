import { createConnection, type Socket } from 'node:net'

/** SCPI's not-a-number (SCPI-99 7.2.1.4): what an instrument gives for a sensor that is not there. */
const NOT_A_NUMBER = 9.9e37

/** No answer in time, or the line was lost while waiting. */
export class NoAnswer extends Error {}

/** The answer to one question: a number, or `missing` where the instrument says there is none. */
export type Measured = number | 'missing'

export interface ClientOptions {
  readonly host: string
  readonly port: number
  /** Longest wait for an answer (ms). */
  readonly timeout?: number
}

/**
 * A SCPI instrument over raw TCP. One question at a time; a question that is not answered in time costs the connection,
 * because a late answer would be taken for the next one's. Reconnects at the next question.
 */
export class ScpiClient {
  private socket: Socket | null = null
  private rest = ''
  private waiting: { readonly done: (line: string) => void; readonly failed: (e: Error) => void } | null =
    null
  private chain: Promise<unknown> = Promise.resolve()

  constructor(private readonly options: ClientOptions) {}

  /** Asks one question. @throws NoAnswer. */
  ask(question: string): Promise<string> {
    return this.inTurn(async () => {
      const socket = await this.connected()
      return new Promise<string>((resolve, reject) => {
        const timer = setTimeout(() => {
          this.drop(new NoAnswer(`no answer to ${question} in time`))
        }, this.options.timeout ?? 700)
        this.waiting = {
          done: (line) => {
            clearTimeout(timer)
            resolve(line)
          },
          failed: (e) => {
            clearTimeout(timer)
            reject(e)
          },
        }
        socket.write(`${question}\n`)
      })
    })
  }

  /** A command that has no answer, and what the instrument's error queue says of it; null when all is well. */
  async tell(command: string): Promise<string | null> {
    const answer = await this.ask(`${command};SYST:ERR?`)
    return answer.startsWith('0,') ? null : answer
  }

  /** A measurement. @throws NoAnswer; a reply that is no number counts as none. */
  async measure(question: string): Promise<Measured> {
    const text = await this.ask(question)
    const value = Number(text)
    if (text.trim() === '' || Number.isNaN(value)) throw new NoAnswer(`“${text.slice(0, 40)}” is no number`)
    return Math.abs(value) >= NOT_A_NUMBER ? 'missing' : value
  }

  /** Empties the error queue; what was in it. */
  async errors(): Promise<readonly string[]> {
    const out: string[] = []
    for (let i = 0; i < 25; i++) {
      const e = await this.ask('SYST:ERR?')
      if (e.startsWith('0,') || e.startsWith('+0,')) return out
      out.push(e)
    }
    return out
  }

  close(): void {
    this.drop(new NoAnswer('closed'))
  }

  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    const next = this.chain.then(work, work)
    this.chain = next.catch(() => undefined)
    return next
  }

  private connected(): Promise<Socket> {
    if (this.socket) return Promise.resolve(this.socket)
    return new Promise((resolve, reject) => {
      const socket = createConnection(this.options.port, this.options.host)
      const late = setTimeout(() => socket.destroy(new NoAnswer('no connection')), 2000)
      socket.setEncoding('ascii')
      socket.setNoDelay(true)
      socket.once('connect', () => {
        clearTimeout(late)
        this.socket = socket
        this.rest = ''
        resolve(socket)
      })
      socket.on('data', (data: string) => this.take(data))
      socket.on('error', () => undefined)
      socket.on('close', () => {
        clearTimeout(late)
        if (this.socket === socket) this.drop(new NoAnswer('no connection'))
        reject(new NoAnswer('no connection'))
      })
    })
  }

  private take(data: string): void {
    this.rest += data
    if (this.rest.length > 65536) return this.drop(new NoAnswer('an endless answer'))
    let end: number
    while ((end = this.rest.indexOf('\n')) >= 0) {
      const line = this.rest.slice(0, end).trim()
      this.rest = this.rest.slice(end + 1)
      const { waiting } = this
      this.waiting = null
      waiting?.done(line)
    }
  }

  private drop(error: Error): void {
    const { socket, waiting } = this
    this.socket = null
    this.waiting = null
    this.rest = ''
    socket?.destroy()
    waiting?.failed(error)
  }
}
