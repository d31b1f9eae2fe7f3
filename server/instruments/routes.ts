import { InstrumentAddress, RigSetup } from '@ypsometer/contract'
import { eq } from 'drizzle-orm'
import type { FastifyInstance } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { endsWith, type Changes } from '../changes'
import type { Db } from '../db/client'
import { setting } from '../db/schema'
import { openEvents } from '../http/events'
import { fieldProblem, problem } from '../http/problems'
import { NoAnswer } from './client'
import { InstrumentHub } from './hub'

const NAME = 'instruments'
/** Names of this machine. */
const HERE = ['127.0.0.1', 'localhost', '::1']
const STATES = { empty: 'EMPTY', 'as-shipped': 'SHIP', proposed: 'PROP', dirty: 'DIRTY' } as const
const onOff = (v: boolean): string => (v ? 'ON' : 'OFF')

/** The commands that put something on the simulated bench. */
export function rigCommands(s: RigSetup): readonly string[] {
  return [
    ...(s.model === undefined ? [] : [`RIG:MOD "${s.model.replace(/["\r\n;]/g, '')}"`]),
    ...(s.state === undefined ? [] : [`RIG:STAT ${STATES[s.state]}`]),
    ...(s.attached === undefined ? [] : [`RIG:HOS ${onOff(s.attached)}`]),
    ...(s.lift === undefined ? [] : [`RIG:LIFT ${s.lift}`]),
    ...(s.valve === undefined ? [] : [`RIG:VALV ${s.valve}`]),
    ...(s.running === undefined ? [] : [`RIG:RUN ${onOff(s.running)}`]),
    ...(s.air === undefined ? [] : [`RIG:AIR ${s.air}`]),
    ...(s.tare ? ['SCAL:TARE'] : []),
  ]
}

interface Known {
  /** Where they are until somebody says otherwise. */
  readonly usual: InstrumentAddress
  /** Where else they may be: hosts, or host:port. */
  readonly hosts: readonly string[]
  readonly changes: Changes | null
}

/** The port that SCPI has (IANA). No other is tried unless it is named: an address is no way to look for ports. */
const SCPI = 5025
function isKnown({ host, port }: InstrumentAddress, { usual, hosts }: Known): boolean {
  if (host === '' || (host === usual.host && port === usual.port)) return true
  return hosts.includes(`${host}:${port}`) || (port === SCPI && [...HERE, ...hosts].includes(host))
}

/** Live instruments: where they are, what they show as server-sent events, and what to put on a simulated bench. */
export async function registerInstruments(
  app: FastifyInstance,
  db: Db,
  { usual, hosts, changes }: Known,
): Promise<void> {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  const tags = ['instruments']
  let hub: InstrumentHub | null = null
  /** The hub at the address kept in the database, read when first needed. */
  const at = async (): Promise<InstrumentHub> => {
    if (hub) return hub
    const [row] = await db.select().from(setting).where(eq(setting.name, NAME))
    const kept = InstrumentAddress.safeParse(row?.value)
    hub ??= new InstrumentHub(kept.success ? kept.data : usual)
    return hub
  }
  app.addHook('onClose', async () => hub?.close())

  typed.get(
    '/instruments',
    { schema: { tags, response: { 200: InstrumentAddress } } },
    async () => (await at()).where,
  )
  typed.put(
    '/instruments',
    { schema: { tags, body: InstrumentAddress, response: { 200: InstrumentAddress } } },
    async ({ body }) => {
      if (!isKnown(body, { usual, hosts, changes }))
        throw fieldProblem(
          'host',
          `this machine (127.0.0.1) at port ${SCPI}${usual.host ? ` or ${usual.port}` : ''}, or what YPSOMETER_INSTRUMENT_HOSTS lists${hosts.length ? `: ${hosts.join(', ')}` : ''}`,
        )
      await db
        .insert(setting)
        .values({ name: NAME, value: body })
        .onConflictDoUpdate({ target: setting.name, set: { value: body, updatedAt: new Date() } })
      ;(await at()).move(body)
      return body
    },
  )
  app.get(
    '/instruments/stream',
    { exposeHeadRoute: false, schema: { tags, hide: true } },
    async (request, reply) => {
      const live = await at()
      const write = openEvents(reply)
      const free = endsWith(changes, request, () => reply.raw.end())
      const deaf = live.watch((frame) => write(JSON.stringify(frame)))
      const stop = (): void => {
        free()
        deaf()
      }
      request.raw.on('close', stop)
      reply.raw.on('error', stop)
    },
  )
  typed.post(
    '/instruments/rig',
    { schema: { tags, body: RigSetup, response: { 200: z.object({ done: z.int() }) } } },
    async ({ body }) => {
      const live = await at()
      try {
        const { tare: _tare, ...put } = body
        if (Object.keys(put).length && !/simulated/i.test(await live.identify()))
          throw fieldProblem('model', 'only a simulated bench can be set from here; set a real one by hand')
        const commands = rigCommands(body)
        for (const command of commands) {
          const objection = await live.tell(command)
          if (objection) throw fieldProblem('model', `the bench refused ${command}: ${objection}`)
        }
        return { done: commands.length }
      } catch (error) {
        if (error instanceof NoAnswer)
          throw problem(503, 'instruments-away', 'No instrument answers', { detail: error.message })
        throw error
      }
    },
  )
}
