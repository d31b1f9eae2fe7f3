import type { FastifyReply } from 'fastify'

/** Opens a stream of server-sent events: gives what writes one, of data that is text already. */
export function openEvents(reply: FastifyReply): (data: string) => void {
  reply.hijack()
  reply.raw.writeHead(200, {
    'content-type': 'text/event-stream; charset=utf-8',
    'cache-control': 'no-store',
    'x-accel-buffering': 'no',
  })
  // A first word, so that the page knows it is listened to.
  reply.raw.write(': open\n\n')
  return (data) => void reply.raw.write(`data: ${data}\n\n`)
}
