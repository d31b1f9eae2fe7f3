import type { InstrumentAddress } from '@ypsometer/contract'
import compress from '@fastify/compress'
import etag from '@fastify/etag'
import helmet from '@fastify/helmet'
import fastifyStatic from '@fastify/static'
import swagger from '@fastify/swagger'
import underPressure from '@fastify/under-pressure'
import Fastify, { type FastifyInstance, type FastifyRequest } from 'fastify'
import { jsonSchemaTransform, serializerCompiler, validatorCompiler } from 'fastify-type-provider-zod'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { constants } from 'node:zlib'
import { registerChanges } from './changes'
import { registerCalc } from './calc/routes'
import { isReady, type Db } from './db/client'
import { problem, registerProblems, sendProblem } from './http/problems'
import { registerStatus } from './keep/status'
import { registerLibrary } from './library/routes'
import { registerInstruments } from './instruments/routes'
import { registerImports } from './models/imports'
import { registerModels } from './models/routes'
import { registerPhotos } from './photos/routes'
import { registerRankings } from './ranking/routes'
import { registerTanks } from './tanks/routes'
import { registerHands } from './hands/routes'
import { registerDocuments } from './documents/routes'
import { registerReviews } from './reviews/routes'
import { registerShared } from './reviews/shared'
import { registerUpkeep } from './upkeep/routes'

export interface AppOptions {
  readonly db: Db
  /** The built web app; left out in tests of the API. */
  readonly webRoot?: string
  readonly logLevel?: string
  /** Where the bench instruments are until somebody sets another address; none by default. */
  readonly instruments?: InstrumentAddress
  /** Hosts besides this machine where instruments may be. */
  readonly instrumentHosts?: readonly string[]
  /** Memory (bytes) beyond which requests are turned away; 0 for no limit. */
  readonly mostMemory?: number
}

const LOOPBACK = /^(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/

/** Writes are taken from this app's own pages and from programs; not from other sites' pages nor a foreign name. */
function refuseForeign(request: FastifyRequest): void {
  const host = request.headers.host ?? ''
  if (!LOOPBACK.test(host)) throw problem(421, 'wrong-host', 'This address is not served here')
  if (request.method === 'GET' || request.method === 'HEAD') return
  const origin = request.headers.origin
  const site = request.headers['sec-fetch-site']
  const foreign = origin !== undefined && origin !== `http://${host}` && origin !== `https://${host}`
  if (foreign || site === 'cross-site' || site === 'same-site')
    throw problem(403, 'foreign-origin', 'Writes are taken from this app’s own pages only')
}

/** Most queries that wait for a connection. */
const MOST_WAITING = 300

const busy = () =>
  problem(503, 'busy', 'The server has more to do than it can', { detail: 'Try again in a moment.' })

function isReadable(url: string): boolean {
  try {
    decodeURIComponent(url.split('?')[0] ?? '')
    return true
  } catch {
    return false
  }
}

/** The methods that an address takes, from the routes as they are registered; none for an address there is not. */
function methodsByAddress(app: FastifyInstance): (url: string) => readonly string[] {
  const routes: { readonly pattern: RegExp; readonly methods: readonly string[] }[] = []
  app.addHook('onRoute', ({ url, method }) => {
    if (!url.startsWith('/api/')) return
    routes.push({ pattern: new RegExp(`^${url.replace(/:\w+/g, '[^/]+')}$`), methods: [method].flat() })
  })
  return (url) => {
    const path = url.split('?')[0] ?? ''
    return [...new Set(routes.filter((r) => r.pattern.test(path)).flatMap((r) => r.methods))]
  }
}

/** The whole server: API under /api/v1, the built app everywhere else. Holds no state of its own. */
export async function buildApp({
  db,
  webRoot,
  logLevel = 'warn',
  instruments = { host: '', port: 5025 },
  instrumentHosts = [],
  mostMemory = 0,
}: AppOptions): Promise<FastifyInstance> {
  const app = Fastify({
    // What cannot be read as an address is answered like any other, with the same headers.
    rewriteUrl: ({ url = '/' }) => (isReadable(url) ? url : '/api/v1/unreadable-address'),
    forceCloseConnections: true,
    logger: { level: logLevel, redact: ['req.headers.cookie', 'req.headers.authorization'] },
    bodyLimit: 1024 * 1024,
    requestTimeout: 30000,
    routerOptions: { maxParamLength: 200 },
  })
  app.setValidatorCompiler(validatorCompiler)
  app.setSerializerCompiler(serializerCompiler)
  registerProblems(app)
  const methods = methodsByAddress(app)
  app.addHook('onRequest', async (request) => refuseForeign(request))
  await app.register(helmet, {
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'"],
        workerSrc: ["'self'"],
        styleSrc: ["'self'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        manifestSrc: ["'self'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    strictTransportSecurity: false,
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
    pressureHandler: () => {
      throw busy()
    },
  })
  await app.register(swagger, {
    openapi: {
      openapi: '3.1.0',
      info: {
        title: 'Ypsometer',
        version: '1',
        description: 'Bench and judge for aquarium filters. All quantities in SI.',
      },
    },
    transform: jsonSchemaTransform,
  })
  await app.register(
    async (api) => {
      api.addHook(
        'onSend',
        async (_request, reply) =>
          void (reply.hasHeader('cache-control') || reply.header('cache-control', 'private, no-cache')),
      )
      api.get('/health', { schema: { hide: true } }, async (_request, reply) => {
        const ready = await isReady(db)
        return reply.code(ready ? 200 : 503).send({ status: ready ? 'ready' : 'database away' })
      })
      api.all('/unreadable-address', { schema: { hide: true } }, () => {
        throw problem(400, 'unreadable-address', 'The address cannot be read', {
          detail: 'It holds a % that is not followed by two hexadecimal digits, or bytes that are no text.',
        })
      })
      api.get('/openapi.json', { schema: { hide: true } }, async () => app.swagger())
      // What would only wait until it is given up is told so at once.
      api.addHook('preHandler', async () => {
        if (db.$client.waitingCount > MOST_WAITING) throw busy()
      })
      registerChanges(api, db)
      registerModels(api, db)
      registerImports(api, db)
      registerTanks(api, db)
      registerUpkeep(api, db)
      registerHands(api, db)
      registerReviews(api, db)
      registerDocuments(api, db)
      await api.register(async (shared) => registerShared(shared, db))
      registerRankings(api, db)
      registerLibrary(api, db)
      registerStatus(api, db)
      registerCalc(api)
      await registerInstruments(api, db, instruments, instrumentHosts)
      await api.register(async (photos) => registerPhotos(photos, db))
    },
    { prefix: '/api/v1' },
  )
  if (webRoot && existsSync(join(webRoot, 'index.html'))) {
    await app.register(fastifyStatic, {
      root: webRoot,
      cacheControl: false,
      preCompressed: true,
      setHeaders: (response, path) => {
        const hashed = path.includes('/assets/')
        response.setHeader('cache-control', hashed ? 'public, max-age=31536000, immutable' : 'no-cache')
      },
    })
  }
  app.setNotFoundHandler((request, reply) => {
    const page =
      request.method === 'GET' &&
      !request.url.startsWith('/api/') &&
      !/\.\w+$/.test(request.url.split('?')[0] ?? '')
    if (page && webRoot && existsSync(join(webRoot, 'index.html'))) return reply.sendFile('index.html')
    const allowed = methods(request.url)
    if (allowed.length)
      return sendProblem(
        reply.header('allow', allowed.join(', ')),
        problem(405, 'wrong-method', `This address takes ${allowed.join(', ')}`).problem,
      )
    return sendProblem(reply, problem(404, 'not-found', 'There is nothing at this address').problem)
  })
  return app
}
