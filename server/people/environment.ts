/** How people reach the server and come in, as its environment says. */
export interface ServerEnvironment {
  /** Everyone signs in. */
  readonly signIn: boolean
  /** Where people reach it; none on this machine only. */
  readonly address: string | undefined
  /** Files with a certificate and its key, where the server itself speaks TLS. */
  readonly tls: { readonly cert: string; readonly key: string } | null
  readonly proxies: readonly string[]
  /** Nobody else is listened to: what stands in front, and this machine itself. */
  readonly onlyFrom: readonly string[] | null
  readonly metricsToken: string | undefined
}

type Environment = Readonly<Record<string, string | undefined>>

const HERE: readonly string[] = ['127.0.0.1', 'localhost', '::1']
/** A token that is soon guessed guards nothing (characters). */
const LEAST_TOKEN = 24

function addressOf(text: string | undefined): string | undefined {
  if (!text) return undefined
  const url = URL.canParse(text) ? new URL(text) : null
  if (!url || !['http:', 'https:'].includes(url.protocol) || url.origin !== text.replace(/\/$/, ''))
    throw new Error(
      `YPSOMETER_ADDRESS is “${text}”: give where people reach it, such as https://bench.example.`,
    )
  return url.origin
}

/**
 * Reads HOST, YPSOMETER_ADDRESS, _TLS_CERT, _TLS_KEY, _TLS_IN_FRONT, _PROXIES, _SIGN_IN and _METRICS_TOKEN.
 * @throws an error that says what is missing: beyond this machine nothing is served without TLS.
 */
export function serverEnvironment(env: Environment): ServerEnvironment {
  const host = env.HOST ?? '127.0.0.1'
  const beyond = !HERE.includes(host)
  const address = addressOf(env.YPSOMETER_ADDRESS)
  const { YPSOMETER_TLS_CERT: cert, YPSOMETER_TLS_KEY: key } = env
  if (Boolean(cert) !== Boolean(key))
    throw new Error(
      'YPSOMETER_TLS_CERT and YPSOMETER_TLS_KEY go together: a certificate and its key, as files.',
    )
  const inFront = env.YPSOMETER_TLS_IN_FRONT === '1'
  if (beyond && !cert && !inFront)
    throw new Error(
      `HOST is ${host}, beyond this machine, and nothing speaks TLS: set YPSOMETER_TLS_CERT and YPSOMETER_TLS_KEY, or YPSOMETER_TLS_IN_FRONT=1 where something in front of it does.`,
    )
  if ((beyond || inFront || cert) && !address?.startsWith('https:'))
    throw new Error(
      `YPSOMETER_ADDRESS is ${address ? `“${address}”` : 'not set'}: say where people reach it, such as https://bench.example.`,
    )
  if (beyond && inFront && !env.YPSOMETER_PROXIES)
    throw new Error(
      `HOST is ${host} and TLS is ended in front: set YPSOMETER_PROXIES to the addresses of the proxy, so that no request bypasses it.`,
    )
  const metricsToken = env.YPSOMETER_METRICS_TOKEN || undefined
  if (metricsToken !== undefined && metricsToken.length < LEAST_TOKEN)
    throw new Error(`YPSOMETER_METRICS_TOKEN is too short: at least ${LEAST_TOKEN} characters.`)
  return {
    signIn: beyond || Boolean(address) || env.YPSOMETER_SIGN_IN === '1',
    address,
    tls: cert && key ? { cert, key } : null,
    // What ends TLS on this machine is believed; elsewhere it is named.
    proxies: inFront ? (env.YPSOMETER_PROXIES ?? '127.0.0.1,::1').split(/[\s,]+/).filter(Boolean) : [],
    onlyFrom: beyond && inFront ? (env.YPSOMETER_PROXIES ?? '').split(/[\s,]+/).filter(Boolean) : null,
    metricsToken,
  }
}
