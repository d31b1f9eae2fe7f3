import { airlift } from '@ypsometer/core/hydraulics/airlift'
import { bareOutlet } from '@ypsometer/core/kinds/bareOutlet'
import { pumpHead, type Pump } from '@ypsometer/core/hydraulics/pump'
import type { Segment } from '@ypsometer/core/hydraulics/segments'
import { resistanceOf } from '@ypsometer/core/media/medium'
import { flowOfCase } from '@ypsometer/core/path/flow'
import type { PathCase } from '@ypsometer/core/path/case'
import { BENCH_MEDIA, fillsOf } from './fills'
import { bodyOf, chambersOf } from './interior'
import type { Truth } from './truth'

/** State of the bench: hoses or bare, what is in the body, lift (m), tap open (share), water temperature (°C). */
export interface OnTheBench {
  readonly attached: boolean
  readonly state: 'empty' | 'as-shipped' | 'proposed' | 'dirty'
  readonly lift: number
  /** Another fill than the state's own. */
  readonly fillId?: string
  readonly valve?: number
  readonly temperature: number
}

/** How far the true media lie from what the models say of them: fine fibres are never as the book has them. */
const TRUE_MEDIA = BENCH_MEDIA.map((m) => {
  const r = resistanceOf(m)
  return r.from === 'open' ? m : { ...m, permeability: r.permeability * (m.job === 'fine' ? 0.72 : 1.15) }
})

/** Loss of trays, grids and turns once they are in (velocity heads in a 16 mm bore). */
const trayLoss = (t: Truth, state: OnTheBench['state']): number => (state === 'empty' ? 0 : (t.trays ?? 0))

/** Share of its dirt capacity used in every layer after some weeks. */
const DIRTY = 0.55

const cases = new Map<string, Omit<PathCase, 'hookup' | 'rest' | 'temperature'>>()

/** Body, chambers and fill of a truth; made once for each. */
function caseOf(t: Truth, state: OnTheBench['state'], fillId?: string) {
  const key = `${t.name}-${state}-${fillId ?? ''}`
  const made = cases.get(key)
  if (made) return made
  const fills = fillsOf(t)
  const basis = state === 'proposed' ? 'proposed' : 'as-shipped'
  const fill = fills.find((f) => f.id === fillId) ?? fills.find((f) => f.basis === basis) ?? fills[0]
  const layers = state === 'empty' ? [] : (fill?.layers ?? [])
  const [outerWidth, outerDepth, outerHeight, emptyMass] = bodyOf(t)
  const c = {
    kind: t.kind,
    body: { outerWidth, outerDepth, outerHeight, emptyMass, fullMass: null, waterFill: null },
    chambers: chambersOf(t),
    media: TRUE_MEDIA,
    fill: {
      id: 'true',
      name: 'true',
      basis: 'variant' as const,
      layers: state === 'dirty' ? layers.map((l) => ({ ...l, fouled: DIRTY })) : layers,
    },
    drive: { pump: t.pump as Pump, knowledge: { kind: 'label' as const }, from: 'label' as const },
  }
  cases.set(key, c)
  return c
}

/** The end of a bare body: what its outlet costs is the velocity head of its own bore. */
const bareExit = (t: Truth): Segment => ({
  kind: 'fitting',
  id: 'bare',
  label: 'Bare outlet',
  lossCoefficient: 1,
  diameter: bareOutlet(t.kind, t.hookup.segments).bore,
  count: 1,
})

/** True flow (m³/s) and the pump's head at it (m): pump, lift, hose run, trays and media, and a tap turned down. */
export function trueDuty(t: Truth, on: OnTheBench): { readonly flow: number; readonly head: number } {
  if (!t.pump) return { flow: (t.lifted ?? 0) / 3.6e6, head: 0 }
  const trays = trayLoss(t, on.state)
  const extra = (id: string, k: number): Segment => ({
    kind: 'fitting',
    id,
    label: id,
    lossCoefficient: k,
    diameter: 0.016,
    count: 1,
  })
  const valve = Math.max(0.01, Math.min(1, on.valve ?? 1))
  if (on.lift >= t.pump.shutOffHead) return { flow: 0, head: t.pump.shutOffHead }
  const flow = flowOfCase({
    ...caseOf(t, on.state, on.fillId),
    rest: 0,
    temperature: on.temperature,
    hookup: {
      id: 'true',
      name: 'true',
      outletAboveWater: on.lift,
      sourceBelowWater: 0,
      bodyBelowWater: 0,
      segments: [
        // A bare outlet still lets the water go with its velocity head.
        ...(on.attached ? t.hookup.segments : [bareExit(t)]),
        ...(trays ? [extra('trays', trays)] : []),
        ...(valve < 1 ? [extra('tap', 1.5 / valve ** 4 - 1.5)] : []),
      ],
    },
  })
  return { flow, head: pumpHead(flow, t.pump) }
}

/** Riser and leak of an air-driven truth: what its air does. */
export interface AirTruth {
  readonly diameter: number
  readonly submergence: number
  readonly lift: number
  /** Share of the air that leaves beside the riser. */
  readonly leak: number
}

const RISERS: Readonly<Record<string, AirTruth>> = {
  'Bellows S2': { diameter: 0.018, submergence: 0.3, lift: 0.02, leak: 0.24 },
  'Coracle A1': { diameter: 0.014, submergence: 0.18, lift: 0, leak: 0.01 },
  'Whirlpot F1': { diameter: 0.02, submergence: 0.35, lift: 0, leak: 0.02 },
}
export const airTruth = (t: Truth): AirTruth | undefined => RISERS[t.name]

/** Water truly lifted (m³/s) for an air supply: four fifths of the model, entry losses and foam being what they are. */
export function trueAirlift(a: AirTruth, supplied: number): number {
  return 0.8 * airlift(a, supplied * (1 - a.leak)).flow
}

/** Air (m³/s) that lifts what the truth says it lifts: what its usual air pump gives. */
export function usualAir(t: Truth): number {
  const a = airTruth(t)
  if (!a) return 0
  let [low, high] = [0, 1e-4]
  for (let i = 0; i < 60; i++) {
    const mid = (low + high) / 2
    if (trueAirlift(a, mid) < (t.lifted ?? 0) / 3.6e6) low = mid
    else high = mid
  }
  return (low + high) / 2
}
