import { useRef, useState } from 'react'
import { Link } from 'react-router'
import type { FillLayer } from '@ypsometer/core/fills/place'
import { FillCutaway } from '../cutaway/FillCutaway'
import { moveLayer, type LayerPlace } from '@ypsometer/core/fills/move'
import { Parked } from '../fields/Parked'
import { Loading } from '../frame/States'
import { useDossierContext } from '../frame/dossier'
import { BudgetBar } from '../fillPath/Budget'
import { Trouble } from '../fillPath/Trouble'
import { Findings } from '../fillPath/Findings'
import { FillChooser, StartFill } from '../views/fill/FillChooser'
import { FitForMe } from '../views/fill/FitForMe'
import { LayerList } from '../views/fill/LayerList'
import { writeLayers } from '../fillPath/layerEdits'
import { Results } from '../views/fill/Results'
import { Shopping } from '../views/fill/Shopping'
import { useFillPath } from '../fillPath/useFillPath'
import { useClogTank } from '../fillPath/useClogTank'
import { useDirt } from '../fillPath/useDirt'
import { Dirt } from '../views/fill/Dirt'

/** The fill of the body: drag a layer in the section and see at once what it does. */
export default function Fill() {
  const { dossier } = useDossierContext()
  const [held, setHeld] = useState<readonly FillLayer[] | null>(null)
  const over = useRef('')
  const path = useFillPath(held)
  const [selected, setSelected] = useState<string | null>(null)
  const { fill, outcome, answer, media, stock } = path
  const [day, setDay] = useState(0)
  const { record, tank } = useClogTank(stock)
  const run = useDirt(path.asked, record, day > 0)
  if (!dossier.chambers.length)
    return (
      <p id="media-setup" className="max-w-xl">
        The inside is not measured yet. Media need chambers.{' '}
        <Link to="../inside" className="underline">
          Measure the inside first
        </Link>
        .
      </p>
    )
  if (!fill) return <StartFill />
  const hold = (id: string, to: LayerPlace | null): void => {
    const key = to ? `${id}>${to.chamberId}>${to.index}` : ''
    // Only another place is another question; within a place the hand moves freely.
    if (key === over.current) return
    over.current = key
    setHeld(to ? moveLayer(fill.layers, id, to) : fill.layers)
  }
  const drop = (id: string, to: LayerPlace | null): void => {
    over.current = ''
    setHeld(null)
    if (!to) return
    const next = moveLayer(fill.layers, id, to)
    if (JSON.stringify(next) !== JSON.stringify(fill.layers)) writeLayers(fill, next)
  }
  return (
    <div className="flex flex-col gap-5">
      <div className="max-lg:order-1">
        <FillChooser path={path} fill={fill} />
      </div>
      <Parked row={fill} field="layers" what="The layers of this setup" />
      <Trouble answer={answer} fill={fill} />
      {!outcome || !stock || !media ? (
        answer?.kind === 'missing' || answer?.kind === 'wrong' ? null : (
          <Loading />
        )
      ) : (
        <div className="grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,1.05fr)_minmax(0,1fr)]">
          <div className="lg:sticky lg:top-14 lg:self-start">
            <div className="flex gap-2">
              <div className="min-w-0 flex-1">
                <FillCutaway
                  name={dossier.model.name}
                  outcome={outcome}
                  show="fill"
                  selected={selected}
                  onSelect={setSelected}
                  onHold={hold}
                  onDrop={drop}
                  dirt={run && { run, day }}
                />
              </div>
              <BudgetBar outcome={outcome} height={350} />
            </div>
            <Dirt run={run} day={day} onDay={setDay} tank={tank?.name ?? null} />
          </div>
          <div className="space-y-8">
            <Results
              outcome={outcome}
              stock={stock}
              differences={answer?.kind === 'ready' ? answer.differences : null}
              against={path.against?.name}
            />
            <LayerList
              fill={fill}
              outcome={outcome}
              media={media}
              selected={selected}
              onSelect={setSelected}
            />
            {answer?.kind === 'ready' && (
              <Findings findings={answer.findings} house={path.house?.name ?? ''} selected={null} brief />
            )}
            <FitForMe path={path} fill={fill} tank={record} onMade={(id) => path.choose({ fill: id })} />
            <Shopping outcome={outcome} />
          </div>
        </div>
      )}
    </div>
  )
}
