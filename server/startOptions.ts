import { readFile } from 'node:fs/promises'
import type { AppOptions } from './app'
import type { Db } from './db/client'
import type { ServerEnvironment } from './people/environment'
import { isOwned, visitorOf } from './people/identity'

/** @throws where everyone signs in and nobody can let the first one in. */
export async function refuseUnowned(db: Db, { signIn }: ServerEnvironment): Promise<void> {
  if (signIn && !(await isOwned(db)))
    throw new Error(
      'Sign-in is on, but this workspace has no owner yet. Create one with `npm run people -- owner "Your name"`, then start again.',
    )
}

/** The server’s environment. @throws where a file of TLS cannot be read. */
export async function optionsOf(
  { signIn, address, tls, proxies, onlyFrom, metricsToken }: ServerEnvironment,
  demo: boolean,
): Promise<Pick<AppOptions, 'visitor' | 'address' | 'proxies' | 'onlyFrom' | 'tls' | 'metricsToken'>> {
  const read = async (file: string): Promise<Buffer> =>
    readFile(file).catch((e: NodeJS.ErrnoException) => {
      throw new Error(`${file} cannot be read (${e.code ?? e.message}).`)
    })
  return {
    visitor: signIn ? null : visitorOf(demo ? 'Demo editor' : 'This machine'),
    ...(address && { address }),
    proxies,
    ...(onlyFrom && { onlyFrom }),
    ...(tls && { tls: { cert: await read(tls.cert), key: await read(tls.key) } }),
    ...(metricsToken && { metricsToken }),
  }
}
