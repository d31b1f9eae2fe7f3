import { ensureDebian, POSTGRES } from '../../scripts/lib/system.mjs'
import { throwawayCluster } from '../../scripts/lib/cluster.mjs'

/** One throw-away cluster for the whole Jest run; each test file makes a database of its own in it. */
export default async function setup() {
  ensureDebian([POSTGRES])
  const cluster = await throwawayCluster()
  globalThis.__cluster = cluster
  process.env.TEST_CLUSTER_URL = cluster.url
}
