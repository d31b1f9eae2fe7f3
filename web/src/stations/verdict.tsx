import type { FlowBasis } from '@ypsometer/core/judging/basis'
import type { Reason } from '@ypsometer/core/figures/reason'
import type { Verdict } from '@ypsometer/core/judging/verdictReasons'
import { mainReasons, subjectOf, SUBJECTS, type Subject } from '@ypsometer/core/judging/mainReasons'
import { modelRecord } from '@ypsometer/contract/records'
import { claimed } from '@ypsometer/core/trials/labels'
import { printedFigure } from '@ypsometer/core/trials/printed'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { LitreRuler } from '../charts/LitreRuler'
import { FigureView } from '../figures/FigureView'
import { Words } from '../figures/Words'
import { showDay } from '../settings/when'
import { Loading } from '../frame/States'
import { useDossierContext } from '../frame/dossier'
import { toGap } from '../frame/nextStep'
import { Doubt, HowSure } from '../views/verdict/Doubt'
import { Explained } from '../figures/Explained'

const OBTAINED_WORDS = {
  bought: 'bought',
  loaned: 'loaned to us',
  given: 'given to us',
  'second-hand': 'bought second-hand',
} as const
const TONE_WORDS: Readonly<Record<Reason['tone'], string>> = {
  for: 'for',
  against: 'against',
  caution: 'caution',
  note: 'note',
}

/**
 * The answer first: one headline with its numbers, how sure it is, the three reasons that matter, the ruler;
 * everything else folded by subject. Without media or a measured flow there is no verdict, and what is still needed
 * stands instead.
 */
export default function VerdictView() {
  const { assessment } = useDossierContext()
  if (!assessment) return <Loading />
  const { verdict } = assessment
  return verdict.untested ? <StillNeeded verdict={verdict} /> : <Answer verdict={verdict} />
}

function Answer({ verdict }: { readonly verdict: Verdict }) {
  const { dossier, stock } = useDossierContext()
  const main = mainReasons(verdict)
  const rest = verdict.reasons.filter((r) => r.id !== 'overclaim' && !main.includes(r))
  return (
    <div className="space-y-3">
      <section aria-labelledby="verdict-title">
        <Headline verdict={verdict} />
        <div className="max-w-5xl">
          <Confidence verdict={verdict} />
        </div>
        <Provisional />
      </section>
      <Reasons reasons={main} title="Three reasons that matter" />
      {verdict.ranges.length > 0 && <LitreRuler verdict={verdict} stock={stock} name={dossier.model.name} />}
      <div>
        {SUBJECTS.map((subject) => (
          <Fold
            key={subject}
            title={SUBJECT_WORDS[subject]}
            reasons={rest.filter((r) => subjectOf(r) === subject)}
          >
            {subject === 'flow' && <UsedFlow verdict={verdict} />}
          </Fold>
        ))}
        <Fold title="Confidence in detail" reasons={[]}>
          <Doubt verdict={verdict} />
        </Fold>
        <Fold
          title={
            verdict.missing.length ? `Still unknown (${verdict.missing.length})` : 'Still unknown: nothing'
          }
          reasons={[]}
        >
          <Unknown verdict={verdict} />
        </Fold>
      </div>
      <p className="muted max-w-3xl text-[0.92rem]">
        Scale (label ÷ supported, normal stocking): up to 1.1 holds; to 1.5 optimistic; to 2.5 too high; above
        that far too high.
      </p>
      <StartReview />
    </div>
  )
}

const SUBJECT_WORDS: Readonly<Record<Subject, string>> = {
  media: 'Media',
  flow: 'Flow',
  current: 'Current in the smallest tank',
  label: 'Label',
  service: 'Service',
}

/** Verdict and its two numbers, with how many times the one is the other. */
function Headline({ verdict: v }: { readonly verdict: Verdict }) {
  const { dossier } = useDossierContext()
  const claim = claimed(modelRecord(dossier), 'tank-max')
  const bad = v.level !== 'holds' && v.level !== 'open'
  return (
    <>
      <h2 id="verdict-title" className={`!text-[1.9rem] !leading-tight ${bad ? 'text-error' : ''}`}>
        {v.words.replace(/\.$/, '')}{' '}
        {v.overclaim && (
          <span className="ml-3 text-[1.5rem] whitespace-nowrap max-sm:ml-2">
            × <FigureView figure={v.overclaim} inline />
          </span>
        )}
      </h2>
      <p className="text-[1.2rem]">
        {claim && (
          <>
            Label <FigureView figure={printedFigure(claim)} inline said />
            {v.supported ? (
              <>
                , <Explained>supports</Explained>{' '}
              </>
            ) : (
              '.'
            )}
          </>
        )}
        {v.supported && (
          <>
            {!claim && 'Supports '}
            <FigureView figure={v.supported} inline said /> (normal stocking).
          </>
        )}
        {v.proposed && (
          <>
            {' '}
            Best setup supports <FigureView figure={v.proposed.supported} inline said />.
          </>
        )}
      </p>
    </>
  )
}

/** Something missing that a reader of the verdict must know. */
function Provisional() {
  const { errata } = useDossierContext().dossier.model
  if (!errata.length) return null
  return (
    <div role="note" className="text-warning mt-1 max-w-2xl">
      Provisional: {errata.map((e) => `${e.about}, found ${showDay(e.on)}: ${e.text}`).join('; ')}.
    </div>
  )
}

/** How sure it is, under which condition, and what the flow rests on. */
function Confidence({ verdict }: { readonly verdict: Verdict }) {
  const { dossier } = useDossierContext()
  const obtained = dossier.specimens.at(-1)?.obtained
  return (
    <p className="muted">
      <HowSure verdict={verdict} />
      <span className="block">
        {BASIS[verdict.basis]}
        {obtained && ` The unit was ${OBTAINED_WORDS[obtained]}.`}
      </span>
    </p>
  )
}

function UsedFlow({ verdict }: { readonly verdict: Verdict }) {
  if (!verdict.flow) return null
  return (
    <p className="py-2">
      <span className="kicker block">Flow used for this verdict</span>
      <FigureView figure={verdict.flow} size="lg" />
    </p>
  )
}

/** A subject folded away; nothing where there is nothing to say of it. */
function Fold({
  title,
  reasons,
  children,
}: {
  readonly title: string
  readonly reasons: readonly Reason[]
  readonly children?: ReactNode
}) {
  if (!reasons.length && !children) return null
  return (
    <details className="rule-b group">
      <summary className="cursor-pointer py-2 text-[1.1rem] font-bold">
        {title}{' '}
        {reasons.length > 0 && (
          <span className="muted ml-2 text-[0.92rem] font-normal">{reasons.length}</span>
        )}
      </summary>
      <div className="pb-4">
        {reasons.length > 0 && <List reasons={reasons} />}
        {children}
      </div>
    </details>
  )
}

/** No verdict yet: the one next step, and what else would help. */
function StillNeeded({ verdict }: { readonly verdict: Verdict }) {
  const [next, ...others] = verdict.missing
  return (
    <div className="space-y-6">
      <section aria-labelledby="verdict-title" className="max-w-3xl">
        <h2 id="verdict-title" className="!text-[2.1rem] !leading-tight">
          Not enough data for a verdict
        </h2>
        <p className="mt-1 text-[1.15rem]">
          A label alone cannot be judged. Record the media, or measure the flow.
        </p>
        <Provisional />
      </section>
      {next && (
        <section aria-labelledby="needed-title" className="border-base-content max-w-2xl border p-5">
          <h2 id="needed-title">Still needed</h2>
          <p className="mt-2 text-[1.25rem] font-medium">{next.what}</p>
          <p className="muted">{next.changes}</p>
          <Link to={`../${toGap(next.station, next.id)}`} className="btn btn-primary mt-3">
            {STATION_WORDS[next.station]}
          </Link>
        </section>
      )}
      {others.length > 0 && (
        <section aria-labelledby="missing-title" className="max-w-2xl">
          <h2 id="missing-title">After that</h2>
          <MissingList list={others} />
        </section>
      )}
    </div>
  )
}

const STATION_WORDS: Readonly<Record<Verdict['missing'][number]['station'], string>> = {
  claims: 'Go to Claims',
  bench: 'Go to Bench',
  fill: 'Go to Media',
  tanks: 'Go to Tanks',
}

function StartReview() {
  const { dossier } = useDossierContext()
  return (
    <p>
      <Link to={`/reviews?model=${dossier.model.id}`} className="link">
        Start a review
      </Link>
    </p>
  )
}

const BASIS: Readonly<Record<FlowBasis, string>> = {
  measured: 'Supplied media, installed flow measured here.',
  carried: 'Supplied media, flow measured under other conditions and converted.',
  'computed-fit': 'Supplied media, flow calculated from the measured pump curve.',
  'computed-label': 'Calculated from the label, allowing for usual label error. Nothing measured yet.',
  'supposed-run': 'Flow calculated for usual plumbing (assumed), at most 50 to 60 % of the label.',
  'supposed-fit': 'Flow calculated for the hoses from the measured pump curve; media estimated.',
  'supposed-label': 'Calculated from the label, with ranges for label and media. Nothing measured yet.',
  'measured-empty': 'Flow measured without media; the loss through the media is a rule of thumb.',
  rule: 'Flow by rule of thumb. Nothing measured yet.',
  none: 'No flow known yet.',
}

function Reasons({ reasons, title }: { readonly reasons: readonly Reason[]; readonly title: string }) {
  if (!reasons.length) return null
  return (
    <section aria-labelledby="reasons-title">
      <h2 id="reasons-title" className="sr-only">
        {title}
      </h2>
      <List reasons={reasons} />
    </section>
  )
}

const List = ({ reasons }: { readonly reasons: readonly Reason[] }) => (
  <ul>
    {reasons.map((r) => (
      <li
        key={r.id}
        className="rule-b grid grid-cols-[4.5rem_minmax(0,1fr)] gap-x-3 py-1.5 max-sm:grid-cols-1"
      >
        <span
          className={`kicker pt-0.5 ${r.tone === 'against' ? '!text-error' : r.tone === 'caution' ? '!text-warning' : ''}`}
        >
          {TONE_WORDS[r.tone]}
        </span>
        <p className="max-w-[76rem] leading-snug">
          <Words sentence={r.sentence} />
        </p>
      </li>
    ))}
  </ul>
)

function Unknown({ verdict }: { readonly verdict: Verdict }) {
  return verdict.missing.length ? (
    <MissingList list={verdict.missing} />
  ) : (
    <p className="muted">Complete: all data for this verdict are in.</p>
  )
}

const MissingList = ({ list }: { readonly list: Verdict['missing'] }) => (
  <ul className="mt-1">
    {list.map((m) => (
      <li key={m.id} className="rule-b py-2">
        <Link
          to={`../${toGap(m.station, m.id)}`}
          className="font-medium underline decoration-dotted underline-offset-3"
        >
          {m.what}
        </Link>
        <p className="muted text-[0.92rem] leading-snug">{m.changes}</p>
      </li>
    ))}
  </ul>
)
