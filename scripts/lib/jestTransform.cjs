const swc = require('@swc/jest')

/**
 * Files of views run in a context of their own, where every look at a global goes through the host and takes some thirty
 * times as long: what is looked up by the million is bound in each file instead. Put on the first line, so that the
 * lines of traces stay right.
 */
const bound = (code, names) => {
  const [start] = /^(#!.*\n)?(["']use strict["'];?)?/.exec(code)
  return `${start};const {${names}}=globalThis;${code.slice(start.length)}`
}

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
