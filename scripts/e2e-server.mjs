#!/usr/bin/env node
// The server under the browser tests: a throw-away cluster with the demo bench. A second port beside it takes the
// orders /stop and /start, so that a test can take the server away and bring it back.
import { createServer } from 'node:http'
import { throwawayCluster } from './lib/cluster.mjs'
import { command, startServer } from './lib/system.mjs'

await command(async () => {
  const port = Number(process.env.E2E_PORT)
  const cluster = await throwawayCluster()
  const start = () => startServer({ port, host: '127.0.0.1', databaseUrl: cluster.url, demo: true })
  let child = await start()
  const control = createServer((request, response) => {
    void (async () => {
      if (request.url === '/stop') child.kill('SIGKILL')
      if (request.url === '/start') child = await start()
      response.end('done')
    })()
  })
  control.listen(port + 1, '127.0.0.1')
  const stop = () => {
    child.kill('SIGKILL')
    cluster.stop()
    process.exit(0)
  }
  process.on('SIGTERM', stop)
  process.on('SIGINT', stop)
})
