import { ADVICE_RULE } from '@ypsometer/core/advice/rule'
import { rankDraws, type Measures } from '@ypsometer/core/advice/score'
import { parentPort } from 'node:worker_threads'

parentPort?.on('message', (sets: readonly (readonly Measures[])[]) => {
  const from = performance.now()
  let first = 0
  for (const set of sets)
    for (const _ of rankDraws(set, ADVICE_RULE.weights)) first ||= performance.now() - from
  parentPort?.postMessage({ first })
})
parentPort?.postMessage('ready')
