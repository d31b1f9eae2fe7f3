import { constantsTable } from '@ypsometer/core/clogging/report'
import { right, Sheet } from '../../figures/Sheet'

/** Constants of the forecast, within what factor, and why. */
export function Constants() {
  return (
    <details>
      <summary className="cursor-pointer font-medium">Forecast assumptions</summary>
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Forecast assumptions, table">
        <Sheet
          className="mt-2 min-w-[40rem]"
          columns={['Constant', right('Value'), 'Unit', right('Within a factor'), 'Source']}
        >
          {constantsTable.map((c) => (
            <tr key={c.label}>
              <td>{c.label}</td>
              <td className="r num">{c.value}</td>
              <td>{c.unit}</td>
              <td className="r num">{c.band}</td>
              <td className="muted text-[0.88rem]">{c.source}</td>
            </tr>
          ))}
        </Sheet>
      </div>
    </details>
  )
}
