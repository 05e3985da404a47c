import { isIP } from 'node:net'
import { hostname } from 'node:os'

const LOOPBACK = new Set(['localhost', '127.0.0.1', '[::1]'])

/**
 * The names under which this server may be asked. A page of another site can have its own name lead to this machine; asked
 * under such a name the server answers nothing. An address as a number cannot be made to lead elsewhere.
 * @param listening the address that the server listens on
 * @param further names that whoever runs it allows
 */
export function allowsHost(
  listening: string,
  further: readonly string[] = [],
): (host: string | undefined) => boolean {
  const open = !LOOPBACK.has(listening) && listening !== '::1'
  const own = hostname().toLowerCase()
  const names = new Set([
    ...LOOPBACK,
    ...further.map((n) => n.toLowerCase()),
    ...(open ? [listening, own, `${own}.local`] : []),
  ])
  return (host) => {
    if (host === undefined) return false
    const name = host.toLowerCase().replace(/:\d+$/, '')
    return names.has(name) || (open && isIP(name.replace(/^\[|\]$/g, '')) !== 0)
  }
}
