import type { Visit } from '@ypsometer/contract'
import { flowLeft, visitFlow, wantedVisits, type WantedVisit } from '@ypsometer/core/visits/history'
import { Trash2 } from 'lucide-react'
import { Link } from 'react-router'
import { FigureView } from '../../figures/FigureView'
import { useDossierContext } from '../../frame/dossier'
import { IconButton } from '../../frame/IconButton'
import { removeRow } from '../../frame/removed'
import { showDay, today } from '../../settings/when'
import type { Season } from '../../fillPath/useSeason'
import { CLEANED_WORDS, DIRT_WORDS } from './words'
import { right, Sheet } from '../../figures/Sheet'
import { Explained } from '../../figures/Explained'

const STATE_WORDS: Readonly<Record<WantedVisit['state'], string>> = {
  made: 'made',
  due: 'due',
  ahead: 'ahead',
  missed: 'missed',
}

/** Visits of the chosen tank, the newest first, and those the house still wants. */
export function VisitList({ season }: { readonly season: Season }) {
  const { dossier } = useDossierContext()
  const { history, path, came, tank } = season
  const started = came ?? history.visits[0]?.on ?? null
  const wanted =
    started && path.house
      ? wantedVisits(
          path.house.upkeep.visits,
          started,
          history.visits.map((v) => v.on),
          today(),
        )
      : []
  const visits = history.visits.flatMap((v) => dossier.visits.find((x) => x.id === v.id) ?? []).reverse()
  return (
    <section aria-labelledby="visits-title">
      <h2 id="visits-title">
        <Explained>Check-ups</Explained>
        {tank && ` on ${tank.name}`}
      </h2>
      {wanted.length > 0 && (
        <ul className="mt-1 flex flex-wrap gap-x-5 gap-y-1 text-[0.92rem]" aria-label="Planned check-ups">
          {wanted.map((w) => (
            <li key={w.days} className={w.state === 'due' ? 'text-warning font-medium' : 'muted'}>
              <span className="num">{w.days < 2 ? 'next morning' : `${w.days} days`}</span>:{' '}
              {STATE_WORDS[w.state]}
              {(w.state === 'due' || w.state === 'ahead') && `, ${showDay(w.on)}`}
            </li>
          ))}
        </ul>
      )}
      {history.tooEarly.length > 0 && (
        <p role="alert" className="text-warning mt-2">
          {history.tooEarly.map((v) => showDay(v.on)).join(', ')}: dated before the unit arrived
          {came && ` on ${showDay(came)}`}. Not counted until the date is corrected.
        </p>
      )}
      {visits.length === 0 ? (
        <p className="muted mt-2 max-w-xl">
          No check-ups yet. Install it and time its clean flow: that is the baseline.
        </p>
      ) : (
        <Sheet
          className="mt-2"
          columns={[
            'Day',
            right('Flow before'),
            right('Left'),
            { label: 'Dirt', className: 'max-md:hidden' },
            { label: 'Cleaned', className: 'max-md:hidden' },
            { label: 'Flow after', className: 'r max-sm:hidden' },
            { label: 'Minutes', className: 'r max-sm:hidden' },
            <span className="sr-only">Delete</span>,
          ]}
        >
          {visits.map((v) => (
            <VisitRow key={v.id} visit={v} season={season} />
          ))}
        </Sheet>
      )}
    </section>
  )
}

function VisitRow({ visit: v, season }: { readonly visit: Visit; readonly season: Season }) {
  const { dossier } = useDossierContext()
  const before = visitFlow(v, 'before')
  const after = visitFlow(v, 'after')
  const left = flowLeft(season.history, v)
  const layers = dossier.fills.find((f) => f.id === v.fillId)?.layers ?? []
  const media = season.path.media ?? []
  const nameOf = (layerId: string): string =>
    media.find((m) => m.id === layers.find((l) => l.id === layerId)?.mediumId)?.name ?? layerId
  const dirty = Object.entries(v.dirt).filter(([, d]) => d !== 'clean')
  const cleaned = v.cleaned.map((c) => `${c.what === 'everything' ? 'everything' : nameOf(c.what).toLowerCase()}, ${CLEANED_WORDS[c.how]}`) // prettier-ignore
  return (
    <tr>
      <td className="whitespace-nowrap">
        <Link to={`/models/${v.modelId}/visits/${v.id}/run`} className="link num">
          {showDay(v.on)}
        </Link>
        {v.stage === 'set-up' && <div className="muted text-[0.85rem]">set up</div>}
        {v.failed.map((f, i) => (
          <div key={i} className="text-warning text-[0.85rem] whitespace-normal">
            {f.part}: {f.how}
          </div>
        ))}
      </td>
      <td className="r">{before ? <FigureView figure={before} inline /> : '–'}</td>
      <td className="r">{left ? <FigureView figure={left} inline /> : '–'}</td>
      <td className="max-md:hidden">
        {dirty.map(([id, d]) => `${nameOf(id).toLowerCase()} ${DIRT_WORDS[d]}`).join(', ') ||
          (Object.keys(v.dirt).length ? 'clean' : '–')}
      </td>
      <td className="max-md:hidden">{cleaned.join('; ') || '–'}</td>
      <td className="r max-sm:hidden">{after ? <FigureView figure={after} inline /> : '–'}</td>
      <td className="r num max-sm:hidden">{v.minutes ?? '–'}</td>
      <td className="r">
        <IconButton
          label={`Delete the check-up of ${showDay(v.on)}`}
          icon={Trash2}
          onClick={() => removeRow('visits', v, `The check-up of ${showDay(v.on)}`)}
        />
      </td>
    </tr>
  )
}
