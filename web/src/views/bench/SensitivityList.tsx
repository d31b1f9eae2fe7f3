import type { HookupResult } from '@ypsometer/core/trials/modelPump'
import { FigureView } from '../../figures/FigureView'
import { ProvenanceTag } from '../../figures/Provenance'
import { Sheet } from '../../figures/Sheet'

/** Effects of one change at a time, computed without media. */
export function SensitivityList({ hookup }: { readonly hookup: HookupResult }) {
  if (!hookup.sensitivity.length) return null
  return (
    <div>
      <h3>
        What would raise the flow <ProvenanceTag of="computed" />
      </h3>
      <Sheet className="mt-1">
        {hookup.sensitivity.map((s) => (
          <tr key={s.id}>
            <td>{s.label}</td>
            <td className="r">
              <FigureView figure={s.figure} inline signed digits={2} />
            </td>
          </tr>
        ))}
      </Sheet>
    </div>
  )
}
