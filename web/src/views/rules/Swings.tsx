import { CRITERIA, CRITERION, type Criterion } from '@ypsometer/core/advice/criteria'
import { swingWeights, type SwingAnswer, type Weights } from '@ypsometer/core/advice/score'
import { useState } from 'react'
import { QuantityInput } from '../../fields/QuantityInput'

/**
 * Weights by pairs of swings: one criterion’s whole swing is set at 100, and each other is said to be worth so much of
 * it.
 */
export function Swings({
  weights,
  write,
}: {
  readonly weights: Weights
  readonly write: (weights: Weights) => void
}) {
  const heaviest = CRITERIA.reduce((a, b) => (weights[b] > weights[a] ? b : a))
  const [first, setFirst] = useState<Criterion>(heaviest)
  const [answers, setAnswers] = useState<readonly SwingAnswer[]>([])
  const answered = (c: Criterion): number =>
    answers.find((a) => a.criterion === c)?.worth ??
    Math.round((weights[c] / Math.max(weights[first], 1e-9)) * 100)
  return (
    <details className="max-w-3xl">
      <summary className="cursor-pointer">Set weights by answering questions</summary>
      <label className="mt-2 block">
        Which of these would you rather have, if you could have only one?{' '}
        <select
          className="select select-sm w-auto"
          value={first}
          onChange={(e) => {
            setFirst(e.target.value as Criterion)
            setAnswers([])
          }}
        >
          {CRITERIA.map((c) => (
            <option key={c} value={c}>
              {c}: {CRITERION[c].swing}
            </option>
          ))}
        </select>
      </label>
      <p className="muted mt-1 text-[0.92rem]">
        That swing counts 100. How much does each of the others count, from 0 to 100?
      </p>
      <ul>
        {CRITERIA.filter((c) => c !== first).map((c) => (
          <li key={c} className="rule-b flex flex-wrap items-baseline justify-between gap-3 py-1.5">
            <span>
              {c}: {CRITERION[c].swing}
            </span>
            <span className="w-24">
              <QuantityInput
                label={`Worth of the swing of ${c}`}
                si={answered(c)}
                dimension="ratio"
                min={0}
                max={100}
                onCommit={(worth) =>
                  setAnswers([...answers.filter((a) => a.criterion !== c), { criterion: c, worth }])
                }
              />
            </span>
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="btn btn-sm mt-2"
        onClick={() =>
          write(
            swingWeights(
              first,
              CRITERIA.filter((c) => c !== first).map((c) => ({ criterion: c, worth: answered(c) })),
            ),
          )
        }
      >
        Take these weights
      </button>
    </details>
  )
}
