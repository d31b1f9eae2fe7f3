import type { FlowResult } from '../bench/flowRuns'
import type { FlowOf, FlowReadings } from './flowOf'
import { flow as air } from './air/flow'
import { flow as meter } from './meter/flow'
import { flow as read } from './read/flow'
import type { TrialKind } from './readings'
import { flow as vessel } from './vessel/flow'
import { flow as weighed } from './weighed/flow'

export type { FlowReadings } from './flowOf'

/** How the kinds that time or read a flow of water come to it. */
export const FLOWS: Partial<Readonly<Record<TrialKind, FlowOf>>> = { vessel, weighed, meter, read, air }

/**
 * Flow (m³/s) of a trial by its kind. Null without readings or for a kind that gives no flow.
 * @throws OutOfRange naming the reading at fault.
 */
export const trialFlow = (t: FlowReadings): FlowResult | null =>
  t.runs.length ? (FLOWS[t.kind ?? 'vessel']?.from(t) ?? null) : null
