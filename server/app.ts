import type { InstrumentAddress, Person } from '@ypsometer/contract'
import cookie from '@fastify/cookie'
import fastifyStatic from '@fastify/static'
import swagger from '@fastify/swagger'
import Fastify, { type FastifyInstance, type FastifyRequest, type FastifyServerOptions } from 'fastify'
import { jsonSchemaTransform, serializerCompiler, validatorCompiler } from 'fastify-type-provider-zod'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { Changes, registerChanges } from './changes'
import { registerCalc } from './calc/routes'
import type { Db } from './db/client'
import { healthOf } from './db/health'
import { waitingFor } from './db/waiting'
import { refuseOthers } from './http/onlyFrom'
import { fromElsewhere, readElsewhere } from './http/elsewhere'
import { registerJson } from './http/json'
import { registerMetrics } from './http/metrics'
import { Prerenderer } from './http/prerenderer'
import { busy, problem, registerProblems, sendProblem } from './http/problems'
import { NOTHING_NAMED, registerSending } from './http/sending'
import { registerStatus } from './keep/status'
import { registerRows } from './rows'
import { registerInstruments } from './instruments/routes'
import { registerImports } from './models/imports'
import { registerModels } from './models/routes'
import { registerPhotos } from './photos/routes'
import { registerRankings } from './ranking/routes'
import { registerWaterTests } from './tanks/waterTests'
import { registerHistory } from './history/routes'
import { registerDoor, visitorOf, type Door } from './people/identity'
import { registerPeople } from './people/routes'
import { registerCsv } from './csv/routes'
import { registerDocuments } from './documents/routes'
import { registerReviews } from './reviews/routes'
import { registerShared } from './reviews/shared'
import { Workshop } from './threads/workshop'
import { registerUpkeep } from './upkeep/routes'

export interface AppOptions {
  readonly db: Db
  /** The built web app; left out in tests of the API. */
  readonly webRoot?: string
  /** The program that draws pages ahead; that of the build by default. */
  readonly drawer?: string
  readonly logLevel?: string
  /** Where the log goes; to standard output by default. */
  readonly logTo?: { readonly write: (line: string) => void }
  /** Where the bench instruments are until somebody sets another address; none by default. */
  readonly instruments?: InstrumentAddress
  /** Hosts besides this machine where instruments may be. */
  readonly instrumentHosts?: readonly string[]
  /** Memory (bytes) beyond which requests are turned away; 0 for no limit. */
  readonly mostMemory?: number
  /** Heavy requests are answered in threads; without it where all are, as tests of single routes have it. */
  readonly threads?: boolean
  /** This is the app of such a thread: what it answers is sent, shortened and guarded by the one that asked. */
  readonly inThread?: boolean
  /** Whom this machine's own visitors are taken for while nobody owns the bench; null where everyone signs in. */
  readonly visitor?: Person | null
  /** Where people reach it, such as https://bench.example; none on this machine only. */
  readonly address?: string
  /** Trusted proxies, by their addresses: they say where a request came from. */
  readonly proxies?: readonly string[]
  /** Nobody but these addresses, or networks such as 10.0.0.0/8, and this machine is listened to; else anybody. */
  readonly onlyFrom?: readonly string[]
  /** A certificate and its key (PEM), where the server itself speaks TLS. */
  readonly tls?: { readonly cert: Buffer; readonly key: Buffer }
  /** Who knows it may read the metrics; none for nobody. */
  readonly metricsToken?: string
}

const LOOPBACK = /^(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/

/**
 * Writes are taken from this app's own pages and from programs; not from other sites' pages nor under a foreign name.
 * Other sites' pages do not read the API either.
 */
function refuseForeign(request: FastifyRequest, address: string | undefined): void {
  const host = request.headers.host ?? ''
  if (!LOOPBACK.test(host) && host !== (address && new URL(address).host))
    throw problem(421, 'wrong-host', 'This address is not served here')
  const origin = request.headers.origin
  if (request.method === 'GET' || request.method === 'HEAD') {
    if (readElsewhere(request.headers) && request.url.startsWith('/api/'))
      throw problem(403, 'foreign-origin', 'The record is read by this app’s own pages only')
    return
  }
  const own = [`http://${host}`, `https://${host}`, address]
  if ((origin !== undefined && !own.includes(origin)) || fromElsewhere(request.headers))
    throw problem(403, 'foreign-origin', 'Writes are taken from this app’s own pages only')
}

/** Most values in a body of JSON that a thread reads. */
const MOST_IN_THREAD = 2_000_000

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

const ANYONE = { config: { access: 'anyone' } } as const
/** Fields that no log holds. */
const SECRETS = ['req.headers.cookie', 'req.headers.authorization', 'res.headers["set-cookie"]']
/** A request as it is logged: the secret of a link is part of its address. */
const asLogged = (request: FastifyRequest): Record<string, unknown> => ({
  method: request.method,
  url: request.url.replace(/(\/(?:shared|s)\/|[?&]key=)[^/?&]+/g, '$1…'),
  remoteAddress: request.ip,
})

/** How the server listens and logs. */
const serverOptions = ({
  proxies,
  logLevel,
  logTo,
}: Required<Pick<AppOptions, 'proxies' | 'logLevel'>> & {
  readonly logTo: AppOptions['logTo']
}): FastifyServerOptions => ({
  trustProxy: [...proxies],
  // What cannot be read as an address is answered like any other, with the same headers.
  rewriteUrl: ({ url = '/' }) => (isReadable(url) ? url : '/api/v1/unreadable-address'),
  forceCloseConnections: true,
  logger: {
    level: logLevel,
    redact: SECRETS,
    serializers: { req: asLogged },
    ...(logTo && { stream: logTo }),
  },
  bodyLimit: 1024 * 1024,
  requestTimeout: 30000,
  routerOptions: { maxParamLength: 200 },
})

/** Everything under /api/v1. */
async function registerApi(
  api: FastifyInstance,
  db: Db,
  {
    door,
    workshop,
    changes,
    inThread,
    instruments,
    instrumentHosts,
  }: Required<Pick<AppOptions, 'inThread' | 'instruments' | 'instrumentHosts'>> & {
    readonly door: Door
    readonly workshop: Workshop | null
    readonly changes: Changes | null
  },
): Promise<void> {
  api.addHook(
    'onSend',
    async (_request, reply) =>
      void (reply.hasHeader('cache-control') || reply.header('cache-control', 'private, no-cache')),
  )
  registerDoor(api, db, door)
  if (workshop) api.addHook('preParsing', workshop.take)
  api.all('/unreadable-address', { ...ANYONE, schema: { hide: true } }, () => {
    throw problem(400, 'unreadable-address', 'The address cannot be read', {
      detail: 'It holds a % that is not followed by two hexadecimal digits, or bytes that are no text.',
    })
  })
  api.get('/openapi.json', { schema: { hide: true } }, async () => api.swagger())
  // What would only wait until it is given up is told so at once.
  const waitsTooLong = waitingFor(db.$client)
  api.addHook('preHandler', async () => {
    if (waitsTooLong()) throw busy()
  })
  registerPeople(api, db, door)
  if (!inThread) registerChanges(api, db, changes)
  registerHistory(api, db)
  registerModels(api, db)
  registerImports(api, db)
  registerWaterTests(api, db)
  registerUpkeep(api, db)
  registerReviews(api, db)
  registerDocuments(api, db)
  registerCsv(api, db)
  registerShared(api, db)
  registerRankings(api, db, changes)
  registerRows(api, db)
  registerStatus(api, db)
  registerCalc(api, inThread)
  if (!inThread) await registerInstruments(api, db, { usual: instruments, hosts: instrumentHosts, changes })
  await api.register(async (photos) => registerPhotos(photos, db))
}

/** Any other address: a page of the app where it was built, the methods it takes, or nothing. */
function answerTheRest(
  app: FastifyInstance,
  pictures: Prerenderer | null,
  methods: (url: string) => readonly string[],
): void {
  app.setNotFoundHandler(async (request, reply) => {
    const page =
      request.method === 'GET' &&
      !request.url.startsWith('/api/') &&
      !/\.\w+$/.test(request.url.split('?')[0] ?? '')
    if (page && pictures) {
      const drawn = await pictures.send(request, reply)
      return drawn ?? reply.sendFile('index.html')
    }
    const allowed = methods(request.url)
    if (allowed.length)
      return sendProblem(
        reply.header('allow', allowed.join(', ')),
        problem(405, 'wrong-method', `This address takes ${allowed.join(', ')}`).problem,
      )
    return sendProblem(reply, problem(404, 'not-found', 'Page not found').problem)
  })
}

/** The whole server: API under /api/v1, the built app everywhere else. Holds no state of its own. */
export async function buildApp({
  db,
  webRoot,
  drawer,
  logLevel = 'warn',
  logTo,
  instruments = { host: '', port: 5025 },
  instrumentHosts = [],
  mostMemory = 0,
  threads = false,
  inThread = false,
  visitor = visitorOf('This machine'),
  address,
  proxies = [],
  onlyFrom,
  tls,
  metricsToken,
}: AppOptions): Promise<FastifyInstance> {
  const door: Door = { visitor, secure: address?.startsWith('https:') ?? false }
  const options = serverOptions({ proxies, logLevel, logTo })
  // A server of TLS is one of HTTP to everything here.
  const app = Fastify(tls ? ({ ...options, https: tls } as FastifyServerOptions) : options)
  app.setValidatorCompiler(validatorCompiler)
  app.setSerializerCompiler(serializerCompiler)
  registerProblems(app)
  registerJson(app, inThread ? MOST_IN_THREAD : undefined)
  const methods = methodsByAddress(app)
  if (onlyFrom) refuseOthers(app, onlyFrom)
  app.addHook('onRequest', async (request) => refuseForeign(request, address))
  const databaseUrl = db.$client.options.connectionString
  const workshop =
    threads && databaseUrl
      ? new Workshop({ databaseUrl, visitor, proxies, logLevel, ...(address && { address }) })
      : null
  app.addHook('onClose', () => workshop?.close())
  const changes = databaseUrl && !inThread ? new Changes(databaseUrl) : null
  app.addHook('onClose', () => changes?.close())
  const built = webRoot !== undefined && existsSync(join(webRoot, 'index.html'))
  const pictures = built ? new Prerenderer(app, webRoot, drawer) : null
  await app.register(cookie)
  if (!inThread) {
    await registerSending(app, { secure: door.secure, named: pictures?.named ?? NOTHING_NAMED, mostMemory })
    registerMetrics(app, db, metricsToken)
  }
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
  const lives = healthOf(app, db)
  // Neither who asks nor how much is asked keeps this from being answered.
  app.get('/api/v1/health', { schema: { hide: true } }, async (_request, reply) => {
    const ready = await lives()
    return reply
      .code(ready ? 200 : 503)
      .header('cache-control', 'no-store')
      .send({ status: ready ? 'ready' : 'database away' })
  })
  await app.register(
    (api) => registerApi(api, db, { door, workshop, changes, inThread, instruments, instrumentHosts }),
    { prefix: '/api/v1' },
  )
  if (built) {
    app.addHook('onClose', () => pictures?.close())
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
  answerTheRest(app, built ? pictures : null, methods)
  return app
}
