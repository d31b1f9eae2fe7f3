import type { IncomingHttpHeaders } from 'node:http'

/** Does another site's page ask? */
export const fromElsewhere = (headers: IncomingHttpHeaders): boolean =>
  ['cross-site', 'same-site'].includes(String(headers['sec-fetch-site']))

/** Does another site's page ask for itself? A link may lead here from anywhere. */
export const readElsewhere = (headers: IncomingHttpHeaders): boolean =>
  fromElsewhere(headers) && headers['sec-fetch-mode'] !== 'navigate'
