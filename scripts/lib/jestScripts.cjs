const vm = require('node:vm')

/** Stands for the process's own context, where the runner compiles for a context of its own. */
const HOST = {}
/** What this process has compiled, by file name: each file of tests would have all it reads compiled anew. */
const compiled = new Map()

const scriptOf = (code, params, filename) => {
  const known = compiled.get(filename)
  if (known?.code === code) return known.script
  const head = `(function(${params.join()}){`
  const script = new vm.Script(`${head}${code}\n})`, { filename, columnOffset: -head.length })
  compiled.set(filename, { code, script })
  return script
}

/** The runner's modules as functions: a script is compiled once, and what its functions became stays with it. */
vm.compileFunction = (code, params = [], { parsingContext = HOST, filename = '' } = {}) =>
  scriptOf(code, params, filename).runInContext(parsingContext)
const { runInContext } = vm.Script.prototype
vm.Script.prototype.runInContext = function (context, options) {
  return context === HOST ? this.runInThisContext(options) : runInContext.call(this, context, options)
}

module.exports = { HOST }
