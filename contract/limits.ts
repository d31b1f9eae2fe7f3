import type { Dimension } from '@ypsometer/core/units/dimensions'
import { z } from 'zod'
import type { Shape } from './resource'
import { RESOURCES, RESOURCE_NAMES, type ResourceName } from './resources'
import { bareSchema, unitOf } from './schema'

/** Limits of a field, as far as a form needs them before anything is sent. */
export interface FieldLimits {
  /** May it be nothing? */
  readonly nullable?: true
  /** Of a number: what it measures, its least and most (SI), and whether it is whole. */
  readonly dimension?: Dimension
  readonly min?: number
  readonly max?: number
  readonly whole?: true
  /** Most characters of a text, and whether it has to have any. */
  readonly longest?: number
  readonly needed?: true
}

/** Dimension of a number by the unit it is kept in; all others are plain numbers. */
const DIMENSIONS: Readonly<Record<string, Dimension>> = {
  m: 'length',
  kg: 'mass',
  'm³': 'volume',
  s: 'time',
  '°C': 'temperature',
  'kg/m³': 'concentration',
  'kg/s': 'feed',
  'kg/m³ a second': 'feeding',
  'm/s': 'velocity',
  dB: 'sound',
  W: 'power',
  V: 'voltage',
}

function limitsOf(given: z.ZodType): FieldLimits | null {
  const { schema, nullable } = bareSchema(given)
  const may = nullable && { nullable: true as const }
  if (schema instanceof z.ZodNumber) {
    const { minValue, maxValue } = schema
    return {
      ...may,
      dimension: DIMENSIONS[unitOf(given) ?? ''] ?? 'ratio',
      ...(minValue !== null && Number.isFinite(minValue) && { min: minValue }),
      ...(maxValue !== null && Number.isFinite(maxValue) && { max: maxValue }),
      ...(schema.isInt && { whole: true }),
    }
  }
  if (!(schema instanceof z.ZodString)) return null
  return {
    ...may,
    ...((schema.minLength ?? 0) > 0 && { needed: true }),
    ...(schema.maxLength !== null && { longest: schema.maxLength }),
  }
}

/** Limits of the numbers and texts of each kind of row. The build puts their values in its place. */
export const LIMITS = Object.fromEntries(
  RESOURCE_NAMES.map((name) => [
    name,
    Object.fromEntries(
      Object.entries(RESOURCES[name].declared as Shape).flatMap(([field, s]) => {
        const limits = limitsOf(s)
        return limits ? [[field, limits]] : []
      }),
    ),
  ]),
) as Readonly<Record<ResourceName, Readonly<Record<string, FieldLimits>>>>
