import type { IncomingHttpHeaders } from 'node:http'
import type { Person } from '@ypsometer/contract'

/** Data that a thread which answers requests is started with. */
export interface ThreadOptions {
  readonly databaseUrl: string
  /** As the app that asks was built. */
  readonly visitor: Person | null
  readonly address?: string
  readonly proxies: readonly string[]
  readonly logLevel: string
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
