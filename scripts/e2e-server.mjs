#!/usr/bin/env node
// The server under the browser tests: a throw-away cluster with the demo bench. A second port beside it takes the
// orders /stop and /start, so that a test can take the server away and bring it back, /rig-stop and /rig-start for the
// simulated bench, and /rig?command to say something to it.
import { createServer } from 'node:http'
import { connect } from 'node:net'
import { throwawayCluster } from './lib/cluster.mjs'
import { command, startRig, startServer } from './lib/system.mjs'

/** Says one line to the simulated bench and gives what its error queue answers. */
const say = (port, line) =>
  new Promise((resolve, reject) => {
    const socket = connect(port, '127.0.0.1', () => socket.write(`${line};SYST:ERR?\n`))
    socket.once('data', (d) => {
      socket.destroy()
      resolve(String(d))
    })
    socket.once('error', reject)
  })

await command(async () => {
  const port = Number(process.env.E2E_PORT)
  const cluster = await throwawayCluster()
  let rig = await startRig(port + 10)
  const start = () =>
    startServer({ port, host: '127.0.0.1', databaseUrl: cluster.url, demo: true, instruments: rig.address })
  let child = await start()
  const control = createServer((request, response) => {
    void (async () => {
      if (request.url === '/stop') child.kill('SIGKILL')
      if (request.url === '/start') child = await start()
      if (request.url === '/rig-stop') rig.child.kill('SIGKILL')
      if (request.url === '/rig-start') rig = await startRig(rig.port)
      if (request.url?.startsWith('/rig?'))
        response.write(await say(rig.port, decodeURIComponent(request.url.slice(5))))
      response.end('done')
    })()
  })
  control.listen(port + 1, '127.0.0.1')
  const stop = () => {
    child.kill('SIGKILL')
    rig.child.kill('SIGKILL')
    cluster.stop()
    process.exit(0)
  }
  process.on('SIGTERM', stop)
  process.on('SIGINT', stop)
})
