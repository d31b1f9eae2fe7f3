import { timingMethod } from '@ypsometer/contract'
import { flowAgainstLabel, trialResults } from '@ypsometer/core/trials/flows'
import { hasPump } from '@ypsometer/core/kinds/filters'
import { labelBias, type LabelBias } from '@ypsometer/core/trials/bias'
import { FLOW_KINDS } from '@ypsometer/core/trials/readings'
import { and, asc, desc, eq, inArray, isNull, lte, gte } from 'drizzle-orm'
import type { Db } from '../db/client'
import { claim, model, reading, trial } from '../db/schema'

/** Bare trials looked at: the newest. A median over so many moves with none of them. */
const MOST = 400
/** How long an answer stands (ms) before it is looked for anew: a figure of the whole shelf moves slowly. */
const KEPT = 5000
interface Kept {
  readonly bias: Promise<LabelBias>
  until: number
}
const kept = new WeakMap<Db, Kept>()

/** Label bias, as the bench's own bare trials show it. */
export function shelfBias(db: Db): Promise<LabelBias> {
  const last = kept.get(db)
  if (last && last.until > Date.now()) return last.bias
  const bias = measuredBias(db)
  const keep = (): void => void kept.set(db, { until: Date.now() + KEPT, bias })
  if (last) {
    // Whoever asks meanwhile gets the one there was.
    last.until = Infinity
    bias.then(keep, () => kept.delete(db))
    return last.bias
  }
  keep()
  bias.catch(() => kept.delete(db))
  return bias
}

async function measuredBias(db: Db): Promise<LabelBias> {
  const trials = await db
    .select({ trial, kind: model.kind, mainsFrequency: model.mainsFrequency })
    .from(trial)
    .innerJoin(model, eq(model.id, trial.modelId))
    .where(
      and(
        isNull(trial.deletedAt),
        isNull(model.deletedAt),
        isNull(trial.hookupId),
        eq(trial.state, 'empty'),
        inArray(trial.kind, [...FLOW_KINDS]),
        lte(trial.lift, 0),
        gte(trial.valve, 1),
      ),
    )
    .orderBy(desc(trial.createdAt), desc(trial.id))
    .limit(MOST)
  if (!trials.length) return labelBias([])
  const runs = await db
    .select()
    .from(reading)
    .where(
      and(
        inArray(
          reading.trialId,
          trials.map((t) => t.trial.id),
        ),
        isNull(reading.deletedAt),
      ),
    ) // prettier-ignore
    .orderBy(asc(reading.takenAt))
  const claims = await db
    .select()
    .from(claim)
    .where(
      and(
        inArray(
          claim.modelId,
          trials.map((t) => t.trial.modelId),
        ),
        eq(claim.quantity, 'rated-flow'),
        isNull(claim.deletedAt),
      ),
    ) // prettier-ignore
    .orderBy(asc(claim.createdAt), asc(claim.id))
  // The newest bare trial of each model speaks for it.
  const newest = new Map(trials.toReversed().map((t) => [t.trial.modelId, t]))
  const ratios = [...newest.values()].flatMap(({ trial: t, kind, mainsFrequency }) => {
    if (!hasPump(kind)) return []
    const record = {
      kind,
      mainsFrequency,
      hookups: [],
      mediaMass: null,
      claims: claims.flatMap((c) =>
        c.modelId === t.modelId && c.value !== null
          ? [
              {
                quantity: 'rated-flow' as const,
                value: c.value,
                mainsFrequency: c.mainsFrequency,
                qualifier: c.qualifier,
              },
            ]
          : [],
      ),
      trials: [
        {
          ...t,
          method: timingMethod(t),
          when: t.createdAt.toISOString(),
          runs: runs.filter((r) => r.trialId === t.id),
        },
      ],
    }
    const found = flowAgainstLabel(record, trialResults(record))
    return found ? [found.measured.value / found.labelAtMains] : []
  })
  return labelBias(ratios)
}
