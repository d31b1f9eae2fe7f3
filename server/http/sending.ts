import compress from '@fastify/compress'
import etag from '@fastify/etag'
import helmet from '@fastify/helmet'
import underPressure from '@fastify/under-pressure'
import type { FastifyInstance, FastifyRequest } from 'fastify'
import { constants } from 'node:zlib'
import { busy } from './problems'

/** Scripts and styles that stand in a page, as its policy names them. */
interface Named {
  readonly scripts: readonly string[]
  readonly styles: readonly string[]
}
export const NOTHING_NAMED: Named = { scripts: [], styles: [] }

interface Sending {
  /** It is reached over TLS. */
  readonly secure: boolean
  readonly named: Named
  /** Memory (bytes) beyond which what is large is turned away; 0 for no limit. */
  readonly mostMemory: number
}

/** A body longer than this (bytes) is large, where memory is short. */
const LARGE = 64 * 1024
/** Beyond so many times the memory allowed everything is turned away. */
export const TOO_MUCH_MEMORY = 1.5

const isLarge = (request: FastifyRequest): boolean =>
  request.routeOptions.config.heavy !== undefined || Number(request.headers['content-length'] ?? 0) > LARGE

/** How answers go out: guarded, not again where they have not changed, short, and not at all where memory is short. */
export async function registerSending(
  app: FastifyInstance,
  { secure, named, mostMemory }: Sending,
): Promise<void> {
  await app.register(helmet, {
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'", ...named.scripts],
        workerSrc: ["'self'"],
        styleSrc: ["'self'", ...named.styles],
        imgSrc: ["'self'", 'data:', 'blob:'],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        manifestSrc: ["'self'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    strictTransportSecurity: secure && { maxAge: 31_536_000, includeSubDomains: false },
    referrerPolicy: { policy: 'same-origin' },
  })
  // Answers that have not changed since are not sent again, and none is sent longer than it need be.
  await app.register(etag, { weak: true })
  await app.register(compress, {
    encodings: ['br', 'gzip'],
    threshold: 1024,
    brotliOptions: { params: { [constants.BROTLI_PARAM_QUALITY]: 4 } },
  })
  await app.register(underPressure, {
    // No limit on the delay of the event loop: on a busy machine a second without a sample counts as endless here.
    maxEventLoopDelay: 0,
    maxRssBytes: mostMemory,
    pressureHandler: (request, _reply, _type, value) => {
      // Whoever asks whether it lives is answered; what is large goes first.
      if (request.url.startsWith('/api/v1/health')) return
      if (isLarge(request) || Number(value) > mostMemory * TOO_MUCH_MEMORY) throw busy()
    },
  })
}
