import type { Figure, Sentence } from '../figures'
import type { StockClass } from '../tanks'
import { disagreements } from '../trials/disagreements'
import { trialFindings, type TrialFinding } from '../trials'
import { proposedTrials, type ProposedTrial } from './proposed'
import {
  bestTrial,
  flowAgainstLabel,
  installedTrial,
  trialResults,
  type FlowAgainstLabel,
  type TrialResult,
} from './flows'
import { hookupResult, knownPump, thumbFigure, type HookupResult, type KnownPump } from './hydraulics'
import { progress, type Progress } from './progress'
import type { ModelRecord } from './records'
import { verdict, type Verdict } from './verdict'

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

/** Works through one model: trials, pump, hookups, label finding, verdict. Pure; one frame in a worker. */
export function assess(model: ModelRecord, stockClasses?: readonly StockClass[]): Assessment {
  const trials = trialResults(model)
  const pump = knownPump(model, trials)
  const installed = installedTrial(trials, model)
  const hookups = pump
    ? model.hookups.map((h) => {
        const loaded = trials
          .filter((t) => t.trial.hookupId === h.id && !['empty', 'dirty'].includes(t.trial.state))
          .at(-1)
        return hookupResult(h, pump, loaded)
      })
    : []
  const main = hookups.find((h) => h.hookup.id === installed?.trial.hookupId) ?? hookups[0] ?? null
  const againstLabel = flowAgainstLabel(model, trials)
  const thumb = thumbFigure(model)
  return {
    trials,
    pump,
    hookups,
    againstLabel,
    answers: { thumb, computed: main?.computed ?? null, measured: installed?.figure ?? null },
    main,
    findings: trialFindings({ model, flows: trials, main }),
    disagreements: disagreements(trials),
    proposed: proposedTrials(model),
    verdict: verdict({
      model,
      installed,
      best: bestTrial(trials),
      againstLabel,
      known: pump,
      main,
      thumb,
      ...(stockClasses && { stockClasses }),
    }),
    progress: progress(model),
  }
}
