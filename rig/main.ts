import { createServer, type Socket } from 'node:net'
import { Bench } from './bench'
import { carryOut, type Session } from './scpi'

/** Longest line taken from a client. */
const MAX_LINE = 4096

/** Serves the simulated bench by SCPI over raw TCP on loopback: RIG_PORT (default 4690), RIG_SEED. */
function main(): void {
  const port = Number(process.env.RIG_PORT ?? 4690)
  const bench = new Bench(Number(process.env.RIG_SEED ?? 1))
  let last = Date.now()
  setInterval(() => {
    const now = Date.now()
    bench.advance((now - last) / 1000)
    last = now
  }, 50)
  const serve = (socket: Socket): void => {
    const session: Session = { bench, errors: [] }
    let rest = ''
    socket.setNoDelay(true)
    socket.setEncoding('ascii')
    socket.on('data', (data: string) => {
      rest += data
      if (rest.length > MAX_LINE && !rest.includes('\n')) return void socket.destroy()
      const lines = rest.split('\n')
      rest = lines.pop() ?? ''
      for (const line of lines) {
        const answer = carryOut(line, session)
        if (answer !== null) socket.write(`${answer}\n`)
      }
    })
    socket.on('error', () => undefined)
  }
  const server = createServer(serve)
  server.on('error', (error: NodeJS.ErrnoException) => {
    process.stderr.write(
      error.code === 'EADDRINUSE'
        ? `Port ${port} of the simulated bench is taken: set RIG_PORT to another one.\n`
        : `${error.message}\n`,
    )
    process.exit(1)
  })
  server.listen(port, '127.0.0.1')
  const stop = (): void => process.exit(0)
  process.on('SIGTERM', stop)
  process.on('SIGINT', stop)
  // Its pipe to the process that started it closes when that one is killed.
  if (process.env.YPSOMETER_TIED) process.stdin.on('end', stop).resume()
}

main()
