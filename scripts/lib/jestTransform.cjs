const swc = require('@swc/jest')
const { bound } = require('./bound.cjs')

/** What numerical code looks up. */
const NAMES = 'Math,Number,Object,Array,Infinity,NaN'
const withNames = (result) => ({ ...result, code: bound(result.code, NAMES) })

module.exports = {
  createTransformer: (options) => {
    const inner = swc.createTransformer(options)
    return {
      ...inner,
      process: (...args) => withNames(inner.process(...args)),
      processAsync: async (...args) => withNames(await inner.processAsync(...args)),
      getCacheKey: (...args) => `${inner.getCacheKey(...args)}${NAMES}`,
    }
  },
}
