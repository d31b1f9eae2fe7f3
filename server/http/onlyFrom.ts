import type { FastifyInstance } from 'fastify'
import { BlockList, isIPv6 } from 'node:net'

const family = (address: string): 'ipv6' | 'ipv4' => (isIPv6(address) ? 'ipv6' : 'ipv4')
/** An IPv4 address as it is written, however it came. */
const bare = (address: string): string => address.replace(/^::ffff:(?=\d+\.)/, '')

/** Tells whether an address is among these addresses and networks, or this machine's own. */
export function isAmong(from: readonly string[]): (address: string) => boolean {
  const known = new BlockList()
  for (const one of ['127.0.0.0/8', '::1', ...from]) {
    const [address = '', bits] = one.split('/')
    if (bits === undefined) known.addAddress(address, family(address))
    else known.addSubnet(address, Number(bits), family(address))
  }
  return (given) => {
    const address = bare(given)
    return known.check(address, family(address))
  }
}

/** Closes the line to whoever is neither among these addresses or networks nor on this machine. */
export function refuseOthers(app: FastifyInstance, from: readonly string[]): void {
  const known = isAmong(from)
  app.server.on('connection', (socket) => {
    if (!known(socket.remoteAddress ?? '')) socket.destroy()
  })
}
