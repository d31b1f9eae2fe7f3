import { ensureBuild, freePort, startServer } from '../scripts/lib/system.mjs'
import { createDatabase, throwawayCluster } from '../scripts/lib/cluster.mjs'

/** A throw-away cluster with one database that holds the demo bench; every worker takes a copy of it. */
export default async function setup(): Promise<() => void> {
  await ensureBuild()
  const cluster = await throwawayCluster()
  const databaseUrl = await createDatabase(cluster.url, 'demo')
  const server = await startServer({ port: await freePort(), host: '127.0.0.1', databaseUrl, demo: true })
  await new Promise((gone) => {
    server.once('exit', gone)
    server.kill('SIGTERM')
  })
  process.env.E2E_CLUSTER_URL = cluster.url
  return () => cluster.stop()
}
