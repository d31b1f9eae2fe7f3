import { stockKey } from '@ypsometer/core/tanks/stock'
import type { Fill } from '@ypsometer/contract'
import { Copy, Plus, Trash2, Undo2 } from 'lucide-react'
import { createRow } from '../../api/rows'
import { removeRow } from '../../frame/removed'
import { Choice } from '../../fields/Choice'
import { SelectField, TextField } from '../../fields/fields'
import { IconButton } from '../../frame/IconButton'
import { toast } from '../../frame/toastStore'
import { useDossierContext } from '../../frame/dossier'
import { useNewest, writeLayers } from '../../fillPath/layerEdits'
import { inOrder, type FillPath } from '../../fillPath/useFillPath'
import { BASIS_OPTIONS, BASIS_WORDS } from '../../fillPath/words'
import { Explained } from '../../figures/Explained'

/** The named arrangements: choose, copy, compare, go back to as shipped, take out. */
export function FillChooser({ path, fill }: { readonly path: FillPath; readonly fill: Fill }) {
  const { dossier, stock } = useDossierContext()
  const newest = useNewest(fill)
  const fills = inOrder(dossier.fills)
  const shipped = fills.find((f) => f.basis === 'as-shipped')
  const copy = (): void => {
    const taken = new Set(fills.map((f) => f.name))
    let name = `${fill.name}, changed`.slice(0, 76)
    for (let n = 2; taken.has(name); n++) name = `${fill.name}, changed ${n}`.slice(0, 80)
    const { modelId, layers } = fill
    path.choose({ fill: createRow('fills', { modelId, name, layers }) })
  }
  const revert = (): void => {
    if (!shipped) return
    const before = fill.layers
    writeLayers(fill, shipped.layers)
    toast(`${fill.name} is now the supplied setup.`, {
      label: 'Undo',
      run: () => writeLayers(newest.current, before),
    })
  }
  return (
    <section aria-label="Media setups">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
        <div role="tablist" aria-label="Media setups" className="flex flex-wrap gap-x-5 gap-y-1">
          {fills.map((f) => (
            <button
              key={f.id}
              type="button"
              role="tab"
              aria-selected={f.id === fill.id}
              className={`cursor-pointer border-b-2 py-1 text-left ${f.id === fill.id ? 'border-base-content font-bold' : 'border-transparent hover:border-base-300'}`}
              onClick={() => path.choose({ fill: f.id })}
            >
              {f.name}
              {f.name !== BASIS_WORDS[f.basis] && (
                <span className="muted ml-1.5 text-[0.8rem] font-normal">
                  {BASIS_WORDS[f.basis].toLowerCase()}
                </span>
              )}
            </button>
          ))}
        </div>
        <button type="button" className="btn btn-ghost btn-sm" onClick={copy}>
          <Copy size={15} aria-hidden="true" /> Copy
        </button>
        {shipped && shipped.id !== fill.id && (
          <button type="button" className="btn btn-ghost btn-sm" onClick={revert}>
            <Undo2 size={15} aria-hidden="true" /> Reset to supplied
          </button>
        )}
        <IconButton
          label={`Delete ${fill.name}`}
          icon={Trash2}
          onClick={() => removeRow('fills', fill, fill.name)}
        />
      </div>
      <div className="mt-2 grid gap-x-5 gap-y-2 sm:grid-cols-4">
        <TextField key={fill.id} collection="fills" row={fill} field="name" label="Name" />
        <SelectField collection="fills" row={fill} field="basis" label="Type" options={BASIS_OPTIONS} />
        <Choice
          label="Compare with"
          value={path.against?.id ?? ''}
          options={[
            ['', 'nothing'],
            ...fills.filter((f) => f.id !== fill.id).map((f) => [f.id, f.name] as const),
          ]}
          onChange={(against) => path.choose({ against })}
        />
        <Choice
          label="Stocking"
          value={path.stock ? stockKey(path.stock) : ''}
          options={stock.map((s) => [stockKey(s), s.label])}
          onChange={(id) => path.choose({ stock: id })}
        />
      </div>
    </section>
  )
}

/** Nothing recorded yet: what to do first and why. */
export function StartFill() {
  const { dossier } = useDossierContext()
  const start = (name: string, basis: Fill['basis']) => (): void =>
    void createRow('fills', { modelId: dossier.model.id, name, basis })
  return (
    <div className="max-w-xl">
      <h2>What media are inside?</h2>
      <p className="mt-1">
        No <Explained>media setup</Explained> yet. Add the supplied media chamber by chamber to see flow,
        bypass, capacity and cost.
      </p>
      <button
        id="media-setup"
        type="button"
        className="btn btn-primary mt-3"
        onClick={start('Supplied', 'as-shipped')}
      >
        <Plus size={17} aria-hidden="true" /> Add the supplied media
      </button>
    </div>
  )
}
