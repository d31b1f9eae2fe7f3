// What the core's tests ask of Jest, for a runner that stays in one process: a mutant then costs what its tests take,
// not a new start of them. Read before the tests; mocha's `it` and `beforeEach` are global by then.
const { expect } = require('expect')
const fc = require('fast-check')
const { bind } = require('jest-each')

globalThis.expect = expect
/** A test that may take this long (ms) is left out: a folder of mutants would take a night. */
const LONG = 60_000
const one = (title, body, limit = 0) => limit < LONG && it(title, body)
globalThis.test = Object.assign(one, { each: bind(one) })

/** Networks drawn at random against EPANET; a run of all the tests draws 200. */
globalThis.NETWORKS = 10
// The first case that fails is enough: a mutant is noticed, nobody reads which case was the smallest.
fc.configureGlobal({ seed: 4680, endOnFailure: true })
/** Cases that a property is tried on; a run of all the tests tries each on some hundred. */
const CASES = 15
const assert = (property, { numRuns = CASES, ...more } = {}) =>
  fc.assert(property, { ...more, numRuns: Math.min(numRuns, CASES) })
const few = { ...fc, assert }
require.cache[require.resolve('fast-check')].exports = { ...few, default: few }

/** What the core keeps by object; from one mutant to the next it would carry answers over. */
const kept = new Set()
globalThis.WeakMap = class {
  held = new Map()
  constructor() {
    kept.add(this)
  }
  get(key) {
    return this.held.get(key)
  }
  set(key, value) {
    this.held.set(key, value)
    return this
  }
  has(key) {
    return this.held.has(key)
  }
  delete(key) {
    return this.held.delete(key)
  }
}
beforeEach(() => kept.forEach((map) => map.held.clear()))
