import type { IncomingHttpHeaders } from 'node:http'
import type { AppOptions } from '../app'

/** What a thread that answers requests is started with. */
export interface ThreadOptions extends Pick<AppOptions, 'visitor' | 'address' | 'proxies' | 'logLevel'> {
  readonly databaseUrl: string
}

/** A request as it goes to a thread; its body is handed over, not copied. */
export interface ThreadRequest {
  readonly method: string
  readonly url: string
  readonly headers: IncomingHttpHeaders
  readonly remoteAddress: string
  readonly body: Uint8Array | null
}

/** An answer as it comes back. */
export interface ThreadAnswer {
  readonly status: number
  readonly headers: Readonly<Record<string, number | string | string[] | undefined>>
  readonly body: Uint8Array
}
