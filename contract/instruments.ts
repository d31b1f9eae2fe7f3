import { z } from 'zod'

/** Quantities that the instruments of a bench measure, SI: pulses, kg, W, dB, Pa, °C, m³/s of air. */
export const INSTRUMENTS = [
  'pulses',
  'mass',
  'power',
  'sound',
  'pressure1',
  'pressure2',
  'temperature',
  'air',
] as const
export type Instrument = (typeof INSTRUMENTS)[number]

/**
 * How a sensor is. `live`: answers, and its answers move. `stuck`: the same value again and again where noise is to be
 * expected. `missing`: the instrument says the sensor is not there. `silent`: no answer in time.
 */
export const SENSOR_STATES = ['live', 'stuck', 'missing', 'silent'] as const
export const SensorReading = z.object({
  state: z.enum(SENSOR_STATES),
  /** Null unless there is a value: a fault is never a zero. */
  value: z.number().nullable(),
})
export type SensorReading = z.infer<typeof SensorReading>

/** One look at all instruments, as relayed by server-sent events. */
export const InstrumentFrame = z.object({
  at: z.string(),
  link: z.enum(['off', 'down', 'up']),
  identity: z.string(),
  /** The last fault, in words; empty while all is well. */
  trouble: z.string(),
  sensors: z.record(z.enum(INSTRUMENTS), SensorReading),
})
export type InstrumentFrame = z.infer<typeof InstrumentFrame>

/** Where the instruments are: host and port of a SCPI socket; an empty host for none. */
export const InstrumentAddress = z.object({
  host: z
    .string()
    .trim()
    .max(120, 'at most 120 characters')
    .regex(/^[A-Za-z0-9.\-:]*$/, 'a host name or an address, such as 127.0.0.1'),
  port: z.int('a whole number').min(1, 'from 1 to 65535').max(65535, 'from 1 to 65535'),
})
export type InstrumentAddress = z.infer<typeof InstrumentAddress>

/** Set-up of a simulated bench; every part is optional. */
export const RigSetup = z.object({
  model: z.string().max(80).optional(),
  state: z.enum(['empty', 'as-shipped', 'proposed', 'dirty']).optional(),
  attached: z.boolean().optional(),
  lift: z.number().min(0).max(20).optional(),
  valve: z.number().min(0.01).max(1).optional(),
  running: z.boolean().optional(),
  air: z.number().min(0).max(0.01).optional(),
  tare: z.boolean().optional(),
})
export type RigSetup = z.infer<typeof RigSetup>
