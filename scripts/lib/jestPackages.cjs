const { createHash } = require('node:crypto')

/** A package as the process has it, read once for all files of tests instead of anew in the context of each. */
const shared = (path) => `module.exports = hostRequire(${JSON.stringify(path)})`
module.exports = {
  process: (_source, path) => ({ code: shared(path) }),
  getCacheKey: (_source, path) => createHash('sha1').update(shared(path)).digest('hex'),
}
