import type { Figure, Sentence } from '../figures'
import { STOCK_CLASSES, type StockClass } from '../tanks'
import { disagreements } from '../trials/disagreements'
import { trialFindings, type TrialFinding } from '../trials'
import { proposedTrials, type ProposedTrial } from './proposed'
import type { LabelBias } from '../trials/bias'
import { judgedFills } from './fills'
import { flowAgainstLabel, trialResults, type FlowAgainstLabel, type TrialResult } from '../trials/flows'
import { hookupResult, knownPump, thumbFigure, type HookupResult, type KnownPump } from '../trials/modelPump'
import { progress, type Progress } from './progress'
import type { ModelRecord } from '../trials/records'
import { verdict } from './verdict'
import type { Verdict } from './verdictReasons'

/** Everything a dossier shows for one model. */
export interface Assessment {
  readonly trials: readonly TrialResult[]
  readonly pump: KnownPump | null
  readonly hookups: readonly HookupResult[]
  readonly againstLabel: FlowAgainstLabel | null
  /** The three schools of "what does it really move", side by side; each null while it cannot be said. */
  readonly answers: {
    readonly thumb: Figure | null
    readonly computed: Figure | null
    readonly measured: Figure | null
  }
  readonly main: HookupResult | null
  /** Trials other than flows, each with its figures and sentences. */
  readonly findings: readonly TrialFinding[]
  /** Flows under the same conditions that disagree. */
  readonly disagreements: readonly Sentence[]
  readonly proposed: readonly ProposedTrial[]
  readonly verdict: Verdict
  readonly progress: Progress
}

/** Grounds of a judgement besides the model’s own record. */
export interface JudgedBy {
  readonly stockClasses?: readonly StockClass[] | undefined
  /** Error of labels on this shelf; a rule of thumb when absent. */
  readonly bias?: LabelBias | null | undefined
}

/** Works through one model: trials, pump, hookups, label finding, fills, verdict. Pure; one frame in a worker. */
export function assess(
  model: ModelRecord,
  { stockClasses = STOCK_CLASSES, bias = null }: JudgedBy = {},
): Assessment {
  const trials = trialResults(model)
  const pump = knownPump(model, trials, bias ?? undefined)
  const hookups = pump
    ? model.hookups.map((h) => {
        const loaded = trials
          .filter(
            (t) =>
              t.trial.hookupId === h.id && !['empty', 'dirty'].includes(t.trial.state) && t.result.mean > 0,
          )
          .at(-1)
        return hookupResult(h, pump, loaded, model.mainsFrequency)
      })
    : []
  const main = hookups[0] ?? null
  const againstLabel = flowAgainstLabel(model, trials)
  const thumb = thumbFigure(model)
  const normal = stockClasses.find((c) => c.code === 'normal') ?? stockClasses[0]
  const none = { shipped: null, proposed: null }
  const { shipped, proposed } = normal ? judgedFills({ model, trials, pump, main, thumb }, normal) : none
  return {
    trials,
    pump,
    hookups,
    againstLabel,
    answers: {
      thumb,
      computed: main?.computed ?? null,
      measured: shipped?.basis === 'measured' ? shipped.flow : null,
    },
    main,
    findings: trialFindings({ model, flows: trials, main }),
    disagreements: disagreements(trials),
    proposed: proposedTrials(model),
    verdict: verdict({ model, shipped, proposed, againstLabel, known: pump, main, stockClasses }),
    progress: progress(model),
  }
}
