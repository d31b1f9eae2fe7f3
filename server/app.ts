import type { InstrumentAddress } from '@ypsometer/contract'
import helmet from '@fastify/helmet'
import fastifyStatic from '@fastify/static'
import swagger from '@fastify/swagger'
import Fastify, { type FastifyInstance, type FastifyRequest } from 'fastify'
import { jsonSchemaTransform, serializerCompiler, validatorCompiler } from 'fastify-type-provider-zod'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { registerCalc } from './calc/routes'
import { isReady, type Db } from './db/client'
import { problem, registerProblems, sendProblem } from './http/problems'
import { registerLibrary } from './library/routes'
import { registerInstruments } from './instruments/routes'
import { registerImports } from './models/imports'
import { registerModels } from './models/routes'
import { registerPhotos } from './photos/routes'
import { registerTanks } from './tanks/routes'

export interface AppOptions {
  readonly db: Db
  /** The built web app; left out in tests of the API. */
  readonly webRoot?: string
  readonly logLevel?: string
  /** Where the bench instruments are until somebody sets another address; none by default. */
  readonly instruments?: InstrumentAddress
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

/** The whole server: API under /api/v1, the built app everywhere else. Holds no state of its own. */
export async function buildApp({
  db,
  webRoot,
  logLevel = 'warn',
  instruments = { host: '', port: 5025 },
}: AppOptions): Promise<FastifyInstance> {
  const app = Fastify({
    forceCloseConnections: true,
    logger: { level: logLevel, redact: ['req.headers.cookie', 'req.headers.authorization'] },
    bodyLimit: 1024 * 1024,
    requestTimeout: 30000,
    routerOptions: { maxParamLength: 200 },
  })
  app.setValidatorCompiler(validatorCompiler)
  app.setSerializerCompiler(serializerCompiler)
  registerProblems(app)
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
          void (reply.hasHeader('cache-control') || reply.header('cache-control', 'no-store')),
      )
      api.get('/health', { schema: { hide: true } }, async (_request, reply) => {
        const ready = await isReady(db)
        return reply.code(ready ? 200 : 503).send({ status: ready ? 'ready' : 'database away' })
      })
      api.get('/openapi.json', { schema: { hide: true } }, async () => app.swagger())
      registerModels(api, db)
      registerImports(api, db)
      registerTanks(api, db)
      registerLibrary(api, db)
      registerCalc(api)
      await registerInstruments(api, db, instruments)
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
    return sendProblem(reply, problem(404, 'not-found', 'There is nothing at this address').problem)
  })
  return app
}
