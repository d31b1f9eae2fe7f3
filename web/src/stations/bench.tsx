import { useState } from 'react'
import { changeRow } from '../api/rows'
import { Loading } from '../frame/States'
import { useDossierContext } from '../frame/dossier'
import { InstrumentsSheet } from '../instruments/InstrumentsSheet'
import { CurvePoints } from '../views/bench/CurvePoints'
import { Findings } from '../views/bench/Findings'
import { Hookups } from '../views/bench/Hookups'
import { ProposedSet } from '../views/bench/ProposedSet'
import { SensitivityList } from '../views/bench/SensitivityList'
import { ThreeAnswers } from '../views/bench/ThreeAnswers'
import { TrialList } from '../views/bench/TrialList'
import { HeadFlow } from '../charts'
import { Explained } from '../figures/Explained'

/** The bench at the desk: curve and column, the three answers, trials and hookups. */
export default function Bench() {
  const { dossier, assessment } = useDossierContext()
  const [chosen, setChosen] = useState<string | null>(null)
  const [wanted, setWanted] = useState<'computed' | 'measured'>('measured')
  const [asked, setAsked] = useState<string | null>(null)
  if (!assessment) return <Loading />
  const putBack = (trialId: string): void => {
    const trial = dossier.trials.find((t) => t.id === trialId)
    if (trial) changeRow('trials', trial, { outReason: null })
  }
  const hookup = assessment.hookups.find((h) => h.hookup.id === chosen) ?? assessment.main
  const show = hookup?.measured ? wanted : 'computed'
  return (
    <div className="space-y-5">
      <ThreeAnswers />
      {assessment.pump && (
        <section aria-labelledby="curve-title">
          <div className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1">
            <h2 id="curve-title">
              <Explained>Head and flow</Explained>
            </h2>
            <div className="no-print flex flex-wrap items-center gap-4">
              {assessment.hookups.length > 1 && (
                <label className="flex items-baseline gap-2">
                  <span className="kicker">Plumbing</span>
                  <select
                    className="field !w-auto"
                    value={hookup?.hookup.id ?? ''}
                    onChange={(e) => setChosen(e.target.value)}
                  >
                    {assessment.hookups.map((h) => (
                      <option key={h.hookup.id} value={h.hookup.id}>
                        {h.hookup.name}
                      </option>
                    ))}
                  </select>
                </label>
              )}
              {hookup?.measured && (
                <div className="join" role="group" aria-label="Which working point">
                  {(['measured', 'computed'] as const).map((s) => (
                    <button
                      key={s}
                      type="button"
                      aria-pressed={show === s}
                      className={`btn btn-sm join-item ${show === s ? 'btn-neutral' : ''}`}
                      onClick={() => setWanted(s)}
                    >
                      {s === 'measured' ? 'As installed, measured' : 'Without media, calculated'}
                    </button>
                  ))}
                </div>
              )}
            </div>
          </div>
          <div className="mt-2 grid gap-x-8 gap-y-6 xl:grid-cols-[minmax(0,1fr)_19rem]">
            <HeadFlow
              assessment={assessment}
              hookup={hookup}
              show={show}
              name={dossier.model.name}
              onTakeOut={setAsked}
              onPutBack={putBack}
            />
            <div className="space-y-6">
              <Findings hookup={hookup} />
              {hookup && <SensitivityList hookup={hookup} />}
            </div>
          </div>
          <CurvePoints asked={asked} onAsk={setAsked} />
        </section>
      )}
      <ProposedSet />
      <TrialList />
      <Hookups />
      <InstrumentsSheet />
    </div>
  )
}
