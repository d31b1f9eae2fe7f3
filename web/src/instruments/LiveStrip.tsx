import type { Instrument, SensorReading } from '@ypsometer/contract'
import { headOfPressure } from '@ypsometer/core/water/properties'
import type { Dimension } from '@ypsometer/core/units/dimensions'
import { TriangleAlert } from 'lucide-react'
import { Num } from '../figures/Num'
import { rateOf, useInstruments } from './useInstruments'

/** Name of each instrument, and how its value reads. */
export const INSTRUMENT_WORDS: Readonly<
  Record<Instrument, { readonly name: string; readonly dimension: Dimension; readonly unit?: string }>
> = {
  pulses: { name: 'Flow meter', dimension: 'ratio' },
  mass: { name: 'Scale', dimension: 'mass' },
  power: { name: 'Power', dimension: 'power' },
  sound: { name: 'Sound level', dimension: 'sound' },
  pressure1: { name: 'Gauge, suction', dimension: 'head' },
  pressure2: { name: 'Gauge, pressure', dimension: 'head' },
  temperature: { name: 'Water', dimension: 'temperature' },
  air: { name: 'Air flow', dimension: 'flow', unit: 'L/min' },
}

const FAULT_WORDS: Readonly<Record<Exclude<SensorReading['state'], 'live'>, string>> = {
  stuck: 'stuck: shows the same again and again',
  missing: 'not connected',
  silent: 'does not answer',
}

/** Pascals as a height of water, which is what a bench reads. */
const scaled = (i: Instrument, v: number): number => (i.startsWith('pressure') ? headOfPressure(v) : v)

/** A flow from the pulses of the last looks (1/s), once there are enough of them. */
const MeterFlow = ({ rate, kFactor }: { readonly rate: number | null; readonly kFactor: number }) =>
  rate === null ? <span className="muted">counting …</span> : <Num si={rate / kFactor} dimension="flow" />

interface Props {
  readonly show: readonly Instrument[]
  /** Pulses per m³, so that a flow can be shown for the meter. */
  readonly kFactor?: number
}

/** Readings of the instruments now. A sensor that is at fault says so and shows no number. */
export function LiveStrip({ show, kFactor }: Props) {
  const { frames, relay } = useInstruments()
  const frame = frames.at(-1)
  if (relay === 'lost')
    return <Trouble>No live values: the server does not answer. You can still time by hand.</Trouble>
  if (!frame || frame.link === 'off') return null
  if (frame.link === 'down') return <Trouble>{frame.trouble}</Trouble>
  return (
    <section aria-label="Instruments" data-at={frame.at} className="rule-t rule-b py-1.5">
      <dl className="flex flex-wrap gap-x-6 gap-y-1">
        {show.map((i) => {
          const r = frame.sensors[i]
          const { name, dimension, unit } = INSTRUMENT_WORDS[i]
          return (
            <div key={i} className="flex items-baseline gap-2">
              <dt className="kicker">{name}</dt>
              <dd className="min-w-16" data-state={r?.state}>
                {r?.state === 'live' && r.value !== null ? (
                  i === 'pulses' && kFactor ? (
                    <MeterFlow rate={rateOf(frames, i)} kFactor={kFactor} />
                  ) : (
                    <Num si={scaled(i, r.value)} dimension={dimension} {...(unit && { unit })} />
                  )
                ) : (
                  <span className="text-warning text-[0.9rem]">
                    {i === 'pulses' && r?.state === 'stuck'
                      ? 'counts nothing: no water, or stuck'
                      : FAULT_WORDS[(r?.state ?? 'missing') as keyof typeof FAULT_WORDS]}
                  </span>
                )}
              </dd>
            </div>
          )
        })}
      </dl>
      {frame.trouble && <p className="text-warning mt-0.5 text-[0.9rem]">{frame.trouble}</p>}
    </section>
  )
}

const Trouble = ({ children }: { readonly children: React.ReactNode }) => (
  <p role="status" className="rule-t rule-b text-warning flex items-start gap-2 py-1.5 text-[0.92rem]">
    <TriangleAlert size={16} aria-hidden="true" className="mt-1 shrink-0" /> <span>{children}</span>
  </p>
)
