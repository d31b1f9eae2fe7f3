import { constantsTable } from '@ypsometer/core/clogging/report'

/** What the forecast takes for granted, within what factor, and why. */
export function Constants() {
  return (
    <details>
      <summary className="cursor-pointer font-medium">What the forecast takes for granted</summary>
      <div
        className="overflow-x-auto"
        tabIndex={0}
        role="region"
        aria-label="Constants of the forecast, table"
      >
        <table className="sheet mt-2 min-w-[40rem]">
          <thead>
            <tr>
              <th scope="col">Constant</th>
              <th scope="col" className="r">
                Value
              </th>
              <th scope="col">Unit</th>
              <th scope="col" className="r">
                Within a factor
              </th>
              <th scope="col">Source</th>
            </tr>
          </thead>
          <tbody>
            {constantsTable.map((c) => (
              <tr key={c.label}>
                <td>{c.label}</td>
                <td className="r num">{c.value}</td>
                <td>{c.unit}</td>
                <td className="r num">{c.band}</td>
                <td className="muted text-[0.88rem]">{c.source}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  )
}
