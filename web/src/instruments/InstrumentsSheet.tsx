import type { Instrument, InstrumentAddress, InstrumentFrame } from '@ypsometer/contract'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, ApiProblem } from '../api/client'
import { INSTRUMENT_WORDS, LiveStrip } from './LiveStrip'
import { useInstruments } from './useInstruments'

const ALL = Object.keys(INSTRUMENT_WORDS) as Instrument[]

/** Who answers at the address, in a sentence. */
function linkWords(frame: InstrumentFrame | undefined): string {
  if (!frame) return 'Looking …'
  if (frame.link === 'up') return `Connected: ${frame.identity.split(',').slice(0, 2).join(' ')}.`
  return frame.link === 'down' ? 'None answers.' : 'No instrument set. You can type every value.'
}

/** The bench's instruments: what answers, what each shows, and the address of the SCPI socket they are at. */
export function InstrumentsSheet() {
  const { frames, relay } = useInstruments()
  const words = relay === 'lost' ? 'The server does not relay them now.' : linkWords(frames.at(-1))
  return (
    <details>
      <summary className="cursor-pointer">
        <h2 className="inline">Instruments</h2> <span className="muted">{words}</span>
      </summary>
      <div className="mt-2 space-y-3">
        <LiveStrip show={ALL} />
        <Address />
        <p className="muted max-w-2xl text-[0.92rem]">
          Any instrument with the same SCPI commands over TCP works. The commands are in the documentation.
          The app starts with simulated instruments.
        </p>
      </div>
    </details>
  )
}

function Address() {
  const client = useQueryClient()
  const query = useQuery({
    queryKey: ['instruments'],
    queryFn: ({ signal }) => api<InstrumentAddress>('/instruments', { signal }),
  })
  const [host, setHost] = useState<string | null>(null)
  const [port, setPort] = useState<string | null>(null)
  const [said, setSaid] = useState('')
  if (!query.data) return null
  const save = async (): Promise<void> => {
    const number = Number(port ?? query.data.port)
    if (!Number.isInteger(number) || number < 1 || number > 65535)
      return setSaid(`“${port}” is no port: a whole number from 1 to 65535 is accepted.`)
    try {
      await api('/instruments', {
        method: 'PUT',
        body: { host: (host ?? query.data.host).trim(), port: number },
      })
      await client.invalidateQueries({ queryKey: ['instruments'] })
      setHost(null)
      setPort(null)
      setSaid('Kept.')
    } catch (e) {
      setSaid(e instanceof ApiProblem ? e.message : 'The server cannot be reached; try again.')
    }
  }
  return (
    <form
      className="flex flex-wrap items-end gap-4"
      onSubmit={(e) => {
        e.preventDefault()
        void save()
      }}
    >
      <label className="block">
        <span className="kicker block">Host</span>
        <input
          className="field !w-48"
          value={host ?? query.data.host}
          placeholder="none"
          maxLength={120}
          onChange={(e) => setHost(e.target.value)}
        />
      </label>
      <label className="block">
        <span className="kicker block">Port</span>
        <input
          className="field num !w-24"
          inputMode="numeric"
          value={port ?? String(query.data.port)}
          onChange={(e) => setPort(e.target.value)}
        />
      </label>
      <button type="submit" className="btn btn-sm">
        Use this address
      </button>
      <span role="status" className="muted">
        {said}
      </span>
    </form>
  )
}
