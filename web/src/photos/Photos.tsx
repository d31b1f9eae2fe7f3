import type { Photo } from '@ypsometer/contract'
import { Camera, X } from 'lucide-react'
import { useEffect, useMemo, useRef, useState } from 'react'
import { addPhoto, type PhotoOwner } from '../api/rows'
import { removeRow } from '../frame/removed'
import { outbox, useEntries } from '../api/app'
import { fieldsOf, entriesOf } from '../api/outboxPolicy'
import { TextField } from '../fields/fields'
import { useDossierContext } from '../frame/dossier'

const MAX = 20 * 1024 * 1024

/** Photos of a part or a trial, from the camera or a file. They are kept on this device until the server has them. */
export function Photos({ owner }: { readonly owner: PhotoOwner }) {
  const { dossier } = useDossierContext()
  const entries = useEntries()
  const input = useRef<HTMLInputElement>(null)
  const [refusals, setRefusals] = useState<readonly string[]>([])
  const mine = (p: object): boolean =>
    Object.entries(owner).every(([of, id]) => (p as Record<string, unknown>)[of] === id)
  const photos = dossier.photos.filter(mine)
  const refused = entriesOf('photos', entries).filter((e) => e.state === 'refused' && mine(fieldsOf(e)))
  const take = (files: FileList | null): void => {
    const said: string[] = []
    for (const file of files ?? []) {
      if (file.size > MAX)
        said.push(`${file.name} has ${(file.size / 1e6).toFixed(0)} MB; at most 20 MB are taken.`)
      else if (file.size === 0) said.push(`${file.name} is empty.`)
      else if (file.type && !file.type.startsWith('image/'))
        said.push(`${file.name} is no photo; JPEG, PNG or WebP are taken.`)
      else addPhoto(owner, file, '')
    }
    setRefusals(said)
    if (input.current) input.current.value = ''
  }
  return (
    <div>
      <div className="flex items-center justify-between">
        <h3>Photos</h3>
        <label className="btn btn-sm max-sm:h-12 max-sm:px-5 focus-within:outline-2">
          <Camera size={16} aria-hidden="true" /> Add photos
          <input
            ref={input}
            type="file"
            accept="image/*"
            multiple
            className="sr-only"
            onChange={(e) => take(e.target.files)}
          />
        </label>
      </div>
      <div aria-live="polite">
        {refusals.map((r) => (
          <p key={r} className="text-error text-[0.9rem]">
            {r}
          </p>
        ))}
        {refused.map((e) => (
          <p key={e.key} className="text-error text-[0.9rem]">
            A photo was not taken: {e.problem?.errors?.[0]?.message ?? e.problem?.title}.{' '}
            <button type="button" className="btn btn-xs" onClick={() => outbox.resolve(e.key, 'theirs')}>
              Let it go
            </button>
          </p>
        ))}
      </div>
      <ul className="mt-2 grid grid-cols-2 gap-3 sm:grid-cols-3">
        {photos
          .filter((p) => !refused.some((e) => e.rowId === p.id))
          .map((p) => (
            <PhotoTile key={p.id} photo={p} />
          ))}
      </ul>
    </div>
  )
}

function PhotoTile({ photo }: { readonly photo: Photo }) {
  const waiting = useEntries().find((e) => e.rowId === photo.id && e.method === 'POST')
  const blob = waiting?.method === 'POST' ? waiting.blob : undefined
  const local = useMemo(() => (blob ? URL.createObjectURL(blob) : null), [blob])
  useEffect(() => () => void (local && URL.revokeObjectURL(local)), [local])
  return (
    <li>
      <div className="bg-base-200 relative aspect-[4/3] overflow-hidden">
        <a
          href={local ?? `/api/v1/photos/${photo.id}/full`}
          target="_blank"
          rel="noreferrer"
          aria-label={photo.caption || 'Photo, full size'}
        >
          <img
            src={local ?? `/api/v1/photos/${photo.id}/thumb`}
            alt={
              photo.caption ||
              (photo.partId
                ? 'Photo of the part'
                : photo.visitId
                  ? 'Photo of the check-up'
                  : 'Photo of the test')
            }
            loading="lazy"
            className="h-full w-full object-cover"
          />
        </a>
        {waiting && (
          <span className="bg-base-100 text-warning absolute bottom-0 left-0 px-1.5 text-[0.8rem]">
            kept on this device
          </span>
        )}
        <button
          type="button"
          className="btn btn-xs btn-square absolute top-1 right-1"
          aria-label="Delete this photo"
          onClick={() => removeRow('photos', photo, 'Photo')}
        >
          <X size={14} aria-hidden="true" />
        </button>
      </div>
      {!waiting && (
        <TextField
          collection="photos"
          row={photo}
          field="caption"
          label="Caption"
          hideLabel
          hint={photo.caption ? undefined : 'caption'}
        />
      )}
    </li>
  )
}
