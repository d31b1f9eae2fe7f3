import { LIMITS } from './limits'
import type { Shape } from './resource'
import { RESOURCE_NAMES, RESOURCES } from './resources'
import { unitOf } from './schema'

/** Units that are plain numbers wherever they are typed: their name stands in the label of the field. */
const PLAIN = ['(', 'an hour', 'days', 'in SI', 'kg per kg', 'L per kg', 'm²', 'm²/m³', '1/m', 'min', 'months', 'pores per inch', 'times', 'weeks'] // prettier-ignore

test('every number of a row measures something by its unit, or is a plain number that was meant to be', () => {
  for (const name of RESOURCE_NAMES)
    for (const [field, schema] of Object.entries(RESOURCES[name].declared as Shape)) {
      const unit = unitOf(schema)
      if (unit === undefined || LIMITS[name][field]?.dimension !== 'ratio') continue
      expect([name, field, unit, PLAIN.some((p) => unit.startsWith(p))]).toEqual([name, field, unit, true])
    }
})

test('limits are those of the contract: a body’s intake from 1 cm to 5 m, a name of 1 to 80 characters, whole moves', () => {
  expect(LIMITS.bodies.intakeReach).toEqual({ nullable: true, dimension: 'length', min: 0.01, max: 5 })
  expect(LIMITS.tanks.name).toEqual({ longest: 80, needed: true })
  expect(LIMITS.parts.moves).toEqual({ dimension: 'ratio', min: 0, max: 1000, whole: true })
  expect(LIMITS.models.note).toEqual({ longest: 4000 })
})
