import type { ResourceName } from '@ypsometer/contract'
import { deleteRow, type Versioned } from '../api/rows'
import { toast } from './toastStore'

/** Deletes a row and says so, with an undo that stays a while. `what` begins the sentence. */
export function removeRow(collection: ResourceName, row: Versioned, what: string): void {
  const undo = deleteRow(collection, row)
  toast(`${what} deleted.`, { label: 'Undo', run: undo })
}
