import type { RigSetup, Trial } from '@ypsometer/contract'
import { useState } from 'react'
import { api, ApiProblem } from '../api/client'
import { useInstruments } from './useInstruments'

/**
 * With the simulated bench only: puts this filter on it, under this trial's conditions. A real bench is set by hand.
 */
export function RigButton({ trial, model }: { readonly trial: Trial; readonly model: string }) {
  const { frames } = useInstruments()
  const [said, setSaid] = useState('')
  const frame = frames.at(-1)
  if (frame?.link !== 'up' || !/simulated/i.test(frame.identity)) return null
  const put = async (setup: RigSetup, done: string): Promise<void> => {
    try {
      await api('/instruments/rig', { method: 'POST', body: setup })
      setSaid(done)
    } catch (e) {
      setSaid(e instanceof ApiProblem ? e.message : 'The server cannot be reached.')
    }
  }
  return (
    <div className="flex flex-wrap items-center gap-2 py-1">
      <button
        type="button"
        className="btn h-14 px-4"
        onClick={() =>
          void put(
            {
              model,
              state: trial.state,
              attached: trial.hookupId !== null,
              lift: trial.lift,
              valve: Math.max(0.01, trial.valve),
              running: true,
            },
            'On the simulated bench.',
          )
        }
      >
        Put it on the simulated bench
      </button>
      {trial.kind === 'weighed' && (
        <button
          type="button"
          className="btn h-14 px-4"
          onClick={() => void put({ tare: true }, 'Scale at zero.')}
        >
          Tare
        </button>
      )}
      {trial.kind === 'noise' && (
        <button
          type="button"
          className="btn h-14 px-4"
          onClick={() => void put({ running: false }, 'Switched off.')}
        >
          Switch it off
        </button>
      )}
      <span role="status" className="muted text-[0.9rem]">
        {said}
      </span>
    </div>
  )
}
