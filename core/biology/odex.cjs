// Loaded this way by all: where nothing bundles it, an import of the package itself finds nothing in it.
module.exports = { Solver: require('odex').Solver }
