import type { CreateOf, PatchOf, ResourceName, RowOf } from '@ypsometer/contract'
import { rowToBe } from '@ypsometer/contract/created'
import { outbox } from './app'
import type { Write } from './outboxPolicy'

/** A row as far as a change of it needs to know it. */
export type Versioned = Pick<RowOf<ResourceName>, 'id' | 'version'>
type Making<N extends ResourceName> = Omit<CreateOf<N>, 'id'>

function make<N extends ResourceName>(collection: N, without: Making<N>, id: string, blob?: Blob): string {
  const body = { ...without, id } as CreateOf<N>
  const row = rowToBe(collection, body, new Date().toISOString())
  outbox.enqueue({
    method: 'POST',
    collection,
    rowId: id,
    body,
    row,
    version: 0,
    ...(blob && { blob }),
  } as Write)
  return id
}

/** Creates a row with an id of our own, kept on this device until acknowledged. Returns the id. */
export const createRow = <N extends ResourceName>(
  collection: N,
  body: Making<N>,
  id: string = crypto.randomUUID(),
): string => make(collection, body, id)

/** Changes fields of a row the person is looking at. */
export function changeRow<N extends ResourceName>(collection: N, row: Versioned, body: PatchOf<N>): void {
  const base = Object.fromEntries(Object.entries(row).filter(([k]) => k in body))
  outbox.enqueue({
    method: 'PATCH',
    collection,
    rowId: row.id,
    body,
    version: row.version,
    base,
  } as Write)
}

/** Deletes a row. Gives what undoes it. */
export function deleteRow(collection: ResourceName, { id, version }: Versioned): () => void {
  const at = { collection, rowId: id }
  outbox.enqueue({ ...at, method: 'DELETE', version })
  return () => outbox.enqueue({ ...at, method: 'RESTORE', version: version + 1 })
}

/** Whose a photo is: a part's, a trial's or a visit's. */
export type PhotoOwner =
  | { readonly partId: string }
  | { readonly trialId: string }
  | { readonly visitId: string }

/** Keeps a photo on this device and sends it when it can. Returns the photo's id. */
export const addPhoto = (owner: PhotoOwner, blob: Blob, caption: string): string =>
  make('photos', { ...owner, caption }, crypto.randomUUID(), blob)
