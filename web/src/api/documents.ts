import type { ImportReport } from '@ypsometer/contract'
import { api } from './client'
import { queryClient } from './queries'

/** What would become of a document; nothing is written. */
export const lookAtDocument = (text: string): Promise<ImportReport> =>
  api<ImportReport>('/documents/preview', { method: 'POST', body: { text } })

/** Takes a document, all or nothing, and reads everything again. */
export async function importDocument(text: string): Promise<ImportReport> {
  const report = await api<ImportReport>('/documents', {
    method: 'POST',
    body: { text },
    key: crypto.randomUUID(),
  })
  await queryClient.invalidateQueries()
  return report
}

/** Takes an import back. */
export async function undoImport(id: string): Promise<void> {
  await api(`/documents/${id}/undo`, { method: 'POST' })
  await queryClient.invalidateQueries()
}
