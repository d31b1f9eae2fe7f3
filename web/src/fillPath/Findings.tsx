import type { Severity } from '@ypsometer/core/path/rules/types'
import { Words } from '../figures/Words'
import type { FindingSaid } from '../workers/pathWork'
import { Explained } from '../figures/Explained'

const WORDS: Readonly<Record<Severity, string>> = { fault: 'fault', caution: 'caution', note: 'note' }
const TONE: Readonly<Record<Severity, string>> = {
  fault: 'border-error',
  caution: 'border-warning',
  note: 'border-base-300',
}

interface Props {
  readonly findings: readonly FindingSaid[]
  readonly house: string
  readonly selected: string | null
  readonly onSelect?: (f: FindingSaid) => void
  /** Without the reasons. */
  readonly brief?: boolean
}

/** Findings of the order audit, numbered as the pins in the section; the gravest first. */
export function Findings({ findings, house, selected, onSelect, brief }: Props) {
  return (
    <section aria-labelledby="findings-title" className="as-needed">
      <h2 id="findings-title">
        Layer check{' '}
        <span className="muted text-[0.85rem] font-normal">
          by <Explained>house rules</Explained> “{house}”
        </span>
      </h2>
      {findings.length === 0 ? (
        <p className="mt-1">No problems found.</p>
      ) : (
        <ol className="mt-1 space-y-1.5">
          {findings.map((f, i) => (
            <li
              key={f.id}
              id={`finding-${f.id}`}
              className={`border-l-4 py-0.5 pl-3 ${TONE[f.rule.severity]} ${selected === f.id ? 'bg-base-200' : ''}`}
            >
              <span className="num muted mr-2">{i + 1}</span>
              <Words sentence={f.sentence} />
              {f.cure && (
                <span>
                  {' '}
                  <span className="muted">Fix:</span> <Words sentence={f.cure} />
                </span>
              )}
              {!brief && (
                <p className="muted text-[0.88rem]">
                  {WORDS[f.rule.severity]} · {f.rule.title}: {f.rule.why}
                  {onSelect && (f.layerId ?? f.chamberId) && (
                    <>
                      {' '}
                      <button
                        type="button"
                        className="cursor-pointer underline decoration-dotted underline-offset-3"
                        onClick={() => onSelect(f)}
                      >
                        Show where
                      </button>
                    </>
                  )}
                </p>
              )}
            </li>
          ))}
        </ol>
      )}
    </section>
  )
}
