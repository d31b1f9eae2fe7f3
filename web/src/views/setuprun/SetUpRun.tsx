import type { Dossier, SetUp } from '@ypsometer/contract'
import { setUpSubject } from '@ypsometer/contract/faults'
import { setUpState, setUpSteps, type HandStep } from '@ypsometer/core/hands/setUp'
import type { StepState } from '@ypsometer/core/hands/vocabulary'
import { CAUTIONS } from '@ypsometer/core/teardown/cautions'
import { ArrowLeft, Check, X } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { useDossier } from '../../api/dossier'
import { useSetUps } from '../../api/lists'
import { changeRow, createRow } from '../../api/rows'
import { TextField } from '../../fields/fields'
import { Parked } from '../../fields/Parked'
import { CautionNote } from '../../frame/CautionNote'
import { DossierProvider } from '../../frame/dossier'
import { KeptNote } from '../../frame/KeptNote'
import { Failed, Loading } from '../../frame/States'
import { Toasts } from '../../frame/Toasts'
import { today } from '../../settings/when'
import { tick, useAwake } from '../../trials/screens/useAwake'
import { useBenchKeys } from '../../trials/screens/useBenchKeys'
import { Heading } from '../../frame/Heading'

/** Setting up in the bench posture: one step a screen, right or not right, each kept as it is tapped. */
export function SetUpRun() {
  const { id = '', setUpId = '' } = useParams()
  const { dossier, error, isPending, refetch } = useDossier(id)
  const { setUps, error: listError } = useSetUps()
  if (!dossier || !setUps) {
    const failed = error ?? listError
    return isPending || !failed ? (
      <Loading />
    ) : (
      <Failed error={failed} what="this set-up" retry={() => void refetch()} />
    )
  }
  const setUp = setUps.find((s) => s.id === setUpId)
  if (!setUp) return <Failed error={new Error('this set-up does not exist')} what="this set-up" />
  return (
    <DossierProvider dossier={dossier}>
      <Walk key={setUpId} dossier={dossier} setUp={setUp} />
    </DossierProvider>
  )
}

function Walk({ dossier, setUp }: { readonly dossier: Dossier; readonly setUp: SetUp }) {
  const steps = setUpSteps(setUpSubject(dossier))
  const state = setUpState(steps, setUp.ticked)
  const [at, setAt] = useState(() => (state.next ? steps.indexOf(state.next) : steps.length))
  const main = useRef<HTMLElement>(null)
  useAwake()
  useEffect(() => {
    main.current?.scrollTo?.(0, 0)
  }, [at])
  const step = steps[at]
  const go = (to: number): void => setAt(Math.min(steps.length, Math.max(0, to)))
  const set = (s: HandStep, to: StepState): void => {
    tick()
    const was = setUp.ticked[s.id]
    changeRow('set-ups', setUp, { ticked: { ...setUp.ticked, [s.id]: { state: to, why: was?.why ?? '' } } })
    // What is not right wants a word first.
    if (to !== 'refused') go(at + 1)
  }
  useBenchKeys({
    space: () => step && set(step, 'done'),
    backspace: () => go(at - 1),
    other: (key) => {
      if (!step || !['n', 'o'].includes(key)) return false
      set(step, key === 'n' ? 'refused' : 'none')
      return true
    },
  })
  const back = `/models/${dossier.model.id}/visits${setUp.tankId ? `?tank=${setUp.tankId}` : ''}`
  return (
    <div className="flex h-dvh flex-col">
      <header className="rule-b flex items-center gap-3 px-3 py-1.5">
        <Link to={back} className="btn btn-ghost h-14 w-14 p-0" aria-label="Back to Long-term">
          <ArrowLeft aria-hidden="true" />
        </Link>
        <div className="min-w-0 flex-1 leading-tight">
          <Heading className="truncate text-[1.15rem]">{`Setting up ${dossier.model.name}`}</Heading>
          <KeptNote />
        </div>
        <span className="num muted whitespace-nowrap" aria-live="polite">
          {Math.min(at + 1, steps.length)} of {steps.length}
        </span>
      </header>
      <Progress steps={steps} setUp={setUp} at={at} />
      <main ref={main} className="min-h-0 flex-1 overflow-y-auto px-4 py-3 sm:mx-auto sm:w-full sm:max-w-3xl">
        <Parked row={setUp} field="ticked" what="What was ticked" />
        {step ? (
          <StepScreen step={step} setUp={setUp} before={state.before} onGo={(s) => go(steps.indexOf(s))} />
        ) : (
          <Summary dossier={dossier} setUp={setUp} steps={steps} onGo={(s) => go(steps.indexOf(s))} />
        )}
      </main>
      <Toasts />
      <nav aria-label="Steps" className="p-3">
        {step ? (
          <Keys
            step={step}
            setUp={setUp}
            onSet={(to) => set(step, to)}
            onBack={() => go(at - 1)}
            first={at === 0}
            onNext={() => go(at + 1)}
          />
        ) : (
          <div className="grid grid-cols-[1fr_2fr] gap-2">
            <button type="button" className="btn h-16 text-[1.1rem]" onClick={() => go(at - 1)}>
              Back
            </button>
            <Link to={back} className="btn btn-primary h-16 text-[1.2rem]">
              Done
            </Link>
          </div>
        )}
      </nav>
    </div>
  )
}

const FILLS: Readonly<Record<StepState, string>> = {
  done: 'bg-base-content',
  refused: 'bg-warning',
  none: 'bg-base-300',
}

/** How far it is, stroke by stroke. */
const Progress = ({
  steps,
  setUp,
  at,
}: {
  readonly steps: readonly HandStep[]
  readonly setUp: SetUp
  readonly at: number
}) => (
  <div className="flex gap-px px-3 pt-2" aria-hidden="true">
    {steps.map((s, i) => {
      const state = setUp.ticked[s.id]?.state
      const fill = state ? FILLS[state] : 'bg-base-200'
      return (
        <span key={s.id} className={`flex-1 ${i === at ? 'bg-primary h-2.5' : `mt-0.5 h-1.5 ${fill}`}`} />
      )
    })}
  </div>
)

interface StepProps {
  readonly step: HandStep
  readonly setUp: SetUp
  readonly before: readonly HandStep[]
  readonly onGo: (step: HandStep) => void
}

function StepScreen({ step, setUp, before, onGo }: StepProps) {
  const ticked = setUp.ticked[step.id]
  return (
    <>
      <p className="kicker">{step.stage}</p>
      <h2 className="!text-[1.55rem] !leading-snug">{step.says}</h2>
      <p className="muted mt-2 text-[1.05rem]">{step.why}</p>
      {step.caution && <CautionNote>{CAUTIONS[step.caution]}</CautionNote>}
      {step.id === 'plug' && before.length > 0 && (
        <div role="alert" className="border-warning mt-4 border-l-4 pl-3">
          <p className="text-warning font-bold">
            Not yet: {before.length === 1 ? 'one thing is' : `${before.length} things are`} not right.
          </p>
          <StepList steps={before} setUp={setUp} onGo={onGo} />
        </div>
      )}
      {ticked?.state === 'refused' && <Why key={step.id} step={step} setUp={setUp} />}
    </>
  )
}

const WHY_MAX = 400
/** Refusal of a step, in somebody’s words: kept with every key. */
function Why({ step, setUp }: { readonly step: HandStep; readonly setUp: SetUp }) {
  const was = setUp.ticked[step.id]?.why ?? ''
  const [text, setText] = useState(was)
  const write = (why: string): void => {
    setText(why)
    changeRow('set-ups', setUp, { ticked: { ...setUp.ticked, [step.id]: { state: 'refused', why } } })
  }
  return (
    <label className="mt-4 block">
      <span className="kicker">What is not right?</span>
      <textarea
        className="field text-[1.1rem]"
        rows={3}
        maxLength={WHY_MAX}
        value={text}
        onChange={(e) => write(e.target.value)}
      />
    </label>
  )
}

interface KeysProps {
  readonly step: HandStep
  readonly setUp: SetUp
  readonly first: boolean
  readonly onSet: (to: StepState) => void
  readonly onBack: () => void
  readonly onNext: () => void
}

/** The keys of a step, as large as wet hands want them. */
function Keys({ step, setUp, first, onSet, onBack, onNext }: KeysProps) {
  const state = setUp.ticked[step.id]?.state
  const press = (to: StepState) =>
    ({ type: 'button', 'aria-pressed': state === to, onClick: () => onSet(to) }) as const
  return (
    <div className="grid grid-cols-2 gap-2">
      <button
        {...press('refused')}
        className={`btn h-20 text-[1.2rem] ${state === 'refused' ? 'btn-warning' : ''}`}
      >
        <X aria-hidden="true" /> Problem
      </button>
      <button
        {...press('done')}
        className={`btn h-20 text-[1.3rem] ${state === 'refused' ? '' : 'btn-primary'}`}
      >
        <Check aria-hidden="true" /> Done
      </button>
      <div className="col-span-2 grid grid-cols-3 gap-2">
        <button type="button" className="btn btn-ghost h-14" disabled={first} onClick={onBack}>
          Back
        </button>
        <button
          {...press('none')}
          className={`btn h-14 px-2 leading-tight ${state === 'none' ? 'btn-neutral' : 'btn-ghost'}`}
        >
          Does not apply
        </button>
        <button type="button" className="btn btn-ghost h-14" onClick={onNext}>
          {state ? 'Next' : 'Later'}
        </button>
      </div>
    </div>
  )
}

interface ListProps {
  readonly steps: readonly HandStep[]
  readonly setUp: SetUp
  readonly onGo: (step: HandStep) => void
}

const StepList = ({ steps, setUp, onGo }: ListProps) => (
  <ul className="mt-1">
    {steps.map((s) => (
      <li key={s.id} className="rule-b">
        <button type="button" className="min-h-14 w-full py-1.5 text-left" onClick={() => onGo(s)}>
          {s.says}
          {setUp.ticked[s.id]?.why && <span className="muted block">{setUp.ticked[s.id]?.why}</span>}
        </button>
      </li>
    ))}
  </ul>
)

interface SummaryProps extends ListProps {
  readonly dossier: Dossier
}

/**
 * Outcome of a set-up: what is right, what is not, what nobody looked at; and the first flow, which belongs to a visit.
 */
function Summary({ dossier, setUp, steps, onGo }: SummaryProps) {
  const { done, of, refused } = setUpState(steps, setUp.ticked)
  const open = steps.filter((s) => !setUp.ticked[s.id])
  const navigate = useNavigate()
  const first = (): void => {
    const id = createRow('visits', {
      modelId: dossier.model.id,
      on: today(),
      tankId: setUp.tankId,
      specimenId: setUp.specimenId,
      fillId: dossier.fills[0]?.id ?? null,
      stage: 'set-up',
    })
    void navigate(`/models/${dossier.model.id}/visits/${id}/run`)
  }
  return (
    <div className="space-y-5">
      <h2 className="!text-[1.55rem]">
        <span className="num">{done}</span> of <span className="num">{of}</span> done
      </h2>
      {refused.length > 0 && (
        <section aria-label="Problem">
          <p className="text-warning font-bold">Problems</p>
          <StepList steps={refused} setUp={setUp} onGo={onGo} />
        </section>
      )}
      {open.length > 0 && (
        <section aria-label="Not looked at">
          <p className="kicker">Not looked at yet</p>
          <StepList steps={open} setUp={setUp} onGo={onGo} />
        </section>
      )}
      <button type="button" className="btn h-14 w-full" onClick={first}>
        Time the first flow
      </button>
      <TextField collection="set-ups" row={setUp} field="note" label="In your own words" lines={3} />
    </div>
  )
}
