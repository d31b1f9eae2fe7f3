const { createHash } = require('node:crypto')
const { bound } = require('./bound.cjs')

/** What packages look up that put queries, schemas and routes together. */
const NAMES = 'Object,Array,Symbol,Map,Set,Promise,Number'

/** Packages as they are, with what they look up bound. */
module.exports = {
  process: (source) => ({ code: bound(source, NAMES) }),
  getCacheKey: (source, path) => createHash('sha1').update(`${NAMES} ${path} ${source}`).digest('hex'),
}
