require('./jestScripts.cjs')

/** Views have a window of their own in each file of tests, made from scripts that this process has compiled once. */
module.exports = require('jest-environment-jsdom').default
