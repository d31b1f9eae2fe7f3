import { errorMessage } from '../../api/errorMessage'
import { fromInp } from '@ypsometer/core/network/inp'
import { solveNetwork, type Solution } from '@ypsometer/core/network/solve'
import { Download, Upload } from 'lucide-react'
import { useRef, useState } from 'react'
import { save } from '../../charts/ChartTools'
import { Num } from '../../figures/Num'
import { useDossierContext } from '../../frame/dossier'
import type { FillPath } from '../../fillPath/useFillPath'
import { Sheet } from '../../figures/Sheet'

/** The circuit as an EPANET file, and one of our own files read back and solved. */
export function Circuit({ path }: { readonly path: FillPath }) {
  const { dossier } = useDossierContext()
  const file = useRef<HTMLInputElement>(null)
  const [read, setRead] = useState<{ readonly name: string; readonly solution: Solution } | null>(null)
  const [error, setError] = useState('')
  const download = async (): Promise<void> => {
    const { question } = path
    const text = question && (await path.ask((w) => w.inp(question)))
    if (text) save(`${dossier.model.name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}.inp`, 'text/plain', text)
  }
  const open = async (f: File): Promise<void> => {
    setError('')
    setRead(null)
    try {
      setRead({ name: f.name, solution: solveNetwork(fromInp(await f.text())) })
    } catch (e) {
      setError(errorMessage(e))
    }
  }
  return (
    <section aria-labelledby="circuit-title" className="as-needed">
      <h2 id="circuit-title">The circuit for other programs</h2>
      <div className="mt-1 flex flex-wrap gap-2">
        <button type="button" className="btn btn-sm" onClick={() => void download()}>
          <Download size={16} aria-hidden="true" /> EPANET file (.inp)
        </button>
        <button type="button" className="btn btn-sm" onClick={() => file.current?.click()}>
          <Upload size={16} aria-hidden="true" /> Read one back
        </button>
        <input
          ref={file}
          type="file"
          accept=".inp,text/plain"
          className="hidden"
          aria-label="An EPANET file exported from here"
          onChange={(e) => {
            const f = e.target.files?.[0]
            e.target.value = ''
            if (f) void open(f)
          }}
        />
      </div>
      {error && (
        <p role="alert" className="text-error mt-1">
          {error}
        </p>
      )}
      {read && (
        <Sheet className="mt-2" title={`${read.name}, solved again`}>
          {read.solution.results.map((r) => (
            <tr key={r.element.id}>
              <td>{r.element.label}</td>
              <td className="r">
                <Num si={r.flow} dimension="flow" />
              </td>
              <td className="r">
                <Num si={r.loss} dimension="head" />
              </td>
            </tr>
          ))}
        </Sheet>
      )}
    </section>
  )
}
