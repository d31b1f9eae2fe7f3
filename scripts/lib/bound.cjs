/**
 * Jest runs each file in a context of its own, where every look at a global goes through the host and takes some thirty
 * times as long: what is looked up by the million is bound in each file instead. Put on the first line, so that the
 * lines of traces stay right.
 */
const bound = (code, names) => {
  const [start] = /^(#!.*\n)?(["']use strict["'];?)?/.exec(code)
  return `${start};const {${names}}=globalThis;${code.slice(start.length)}`
}

module.exports = { bound }
