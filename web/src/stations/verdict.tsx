import type { FlowBasis } from '@ypsometer/core/judging/basis'
import type { Reason } from '@ypsometer/core/figures/reason'
import type { Verdict } from '@ypsometer/core/judging/verdict'
import type { Figure } from '@ypsometer/core/figures/figure'
import { Link } from 'react-router'
import { LitreRuler } from '../charts/LitreRuler'
import { FigureView } from '../figures/FigureView'
import { Words } from '../figures/Words'
import { showDay } from '../settings/when'
import { Loading } from '../frame/States'
import { useDossierContext } from '../frame/dossier'
import { Doubt } from '../views/verdict/Doubt'

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

/** The verdict: words that follow from thresholds, its reasons with their numbers, and what is not known yet. */
export default function VerdictView() {
  const { assessment, dossier, stock } = useDossierContext()
  if (!assessment) return <Loading />
  const { verdict } = assessment
  const specimen = dossier.specimens.at(-1)
  const ratio = verdict.overclaim
  return (
    <div className="space-y-8">
      <section
        aria-labelledby="verdict-title"
        className="grid gap-x-10 gap-y-3 lg:grid-cols-[minmax(0,1fr)_22rem]"
      >
        <div>
          <h2 id="verdict-title" className="!text-[2.1rem] !leading-tight">
            {verdict.words} {ratio && <Ratio verdict={verdict} ratio={ratio} />}
          </h2>
          <p className="muted mt-1 max-w-2xl">
            {BASIS[verdict.basis]}
            {specimen && ` The unit was ${OBTAINED_WORDS[specimen.obtained]}.`}
          </p>
          <p className="mt-1">
            <Link to={`/reviews?model=${dossier.model.id}`} className="link">
              Start a review
            </Link>
          </p>
          {dossier.model.errata.length > 0 && (
            <div role="note" className="text-warning mt-2 max-w-2xl">
              Provisional:{' '}
              {dossier.model.errata.map((e) => `${e.about}, found ${showDay(e.on)}: ${e.text}`).join('; ')}.
            </div>
          )}
          <dl className="mt-4 flex flex-wrap gap-x-10 gap-y-3">
            {verdict.supported && verdict.level !== 'open' && (
              <Beside words="Supports as supplied (normal stocking)" figure={verdict.supported} />
            )}
            {ratio && <Beside words="Label ÷ supported" figure={ratio} />}
            {verdict.proposed && <Beside words={`Best setup supports`} figure={verdict.proposed.supported} />}
          </dl>
        </div>
        {verdict.flow && (
          <div>
            <p className="kicker">Flow used for this verdict</p>
            <FigureView figure={verdict.flow} size="lg" />
          </div>
        )}
      </section>
      {verdict.ranges.length > 0 && <LitreRuler verdict={verdict} stock={stock} name={dossier.model.name} />}
      <div className="grid gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <Reasons reasons={verdict.reasons} />
        <div className="space-y-8">
          <Doubt verdict={verdict} />
          <NotYet verdict={verdict} />
        </div>
      </div>
      <p className="muted max-w-3xl text-[0.92rem]">
        Scale (label ÷ supported, normal stocking): up to 1.1 holds; to 1.5 optimistic; to 2.5 too high; above
        that far too high.
      </p>
    </div>
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
  rule: 'On a rule of thumb: nothing has been measured yet.',
  none: 'Nothing is known of the flow yet.',
}

const Beside = ({ words, figure }: { readonly words: string; readonly figure: Figure }) => (
  <div>
    <dt className="kicker">{words}</dt>
    <dd className="text-[1.15rem]">
      <FigureView figure={figure} />
    </dd>
  </div>
)

function Ratio({ verdict, ratio }: { readonly verdict: Verdict; readonly ratio: Figure }) {
  const bad = verdict.level !== 'holds' && verdict.level !== 'open'
  return (
    <span className={`ml-3 whitespace-nowrap max-sm:ml-0 ${bad ? 'text-error' : ''}`}>
      × <FigureView figure={ratio} inline />
    </span>
  )
}

function Reasons({ reasons }: { readonly reasons: readonly Reason[] }) {
  return (
    <section aria-labelledby="reasons-title">
      <h2 id="reasons-title">Reasons</h2>
      {reasons.length === 0 && <p className="muted">There is nothing to reason from yet.</p>}
      <ul className="mt-1">
        {reasons.map((r) => (
          <li key={r.id} className="rule-b grid grid-cols-[5rem_minmax(0,1fr)] gap-x-3 py-2">
            <span
              className={`kicker pt-0.5 ${r.tone === 'against' ? '!text-error' : r.tone === 'caution' ? '!text-warning' : ''}`}
            >
              {TONE_WORDS[r.tone]}
            </span>
            <p>
              <Words sentence={r.sentence} />
            </p>
          </li>
        ))}
      </ul>
    </section>
  )
}

function NotYet({ verdict }: { readonly verdict: Verdict }) {
  return (
    <section aria-labelledby="missing-title">
      <h2 id="missing-title">Not yet known</h2>
      {verdict.missing.length === 0 && <p className="muted">Complete: all data for this verdict are in.</p>}
      <ul className="mt-1">
        {verdict.missing.map((m) => (
          <li key={m.id} className="rule-b py-2">
            <Link
              to={`../${m.station}`}
              className="font-medium underline decoration-dotted underline-offset-3"
            >
              {m.what}
            </Link>
            <p className="muted text-[0.92rem] leading-snug">{m.changes}</p>
          </li>
        ))}
      </ul>
    </section>
  )
}
