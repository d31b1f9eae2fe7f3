const { LegacyFakeTimers, ModernFakeTimers } = require('@jest/fake-timers')
const { ModuleMocker } = require('jest-mock')
const { HOST } = require('./jestScripts.cjs')

/**
 * Files of tests run in the process's own context instead of one each: there a look at a global costs nothing, and
 * packages, read once by the process (jestPackages.cjs), know the tests' dates and expressions for what they are.
 */
module.exports = class {
  constructor({ projectConfig: config }) {
    const global = globalThis
    this.global = global
    this.moduleMocker = new ModuleMocker(global)
    const timerConfig = { idToRef: (id) => id, refToId: (ref) => ref }
    this.fakeTimers = new LegacyFakeTimers({ config, global, moduleMocker: this.moduleMocker, timerConfig })
    this.fakeTimersModern = new ModernFakeTimers({ config, global })
    global.hostRequire = require
  }
  async setup() {}
  async teardown() {
    this.fakeTimers.dispose()
    this.fakeTimersModern.dispose()
  }
  exportConditions() {
    return ['node', 'node-addons']
  }
  getVmContext() {
    return HOST
  }
}
