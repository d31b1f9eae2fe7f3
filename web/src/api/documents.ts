import type { ImportReport } from '@ypsometer/contract'
import { api } from './client'
import { queryClient } from './queries'

/** What would become of a document; nothing is written. */
export const lookAtDocument = async (file: File): Promise<ImportReport> =>
  isZip(file)
    ? api<ImportReport>('/documents/zip/preview', { method: 'POST', body: zipped(file) })
    : api<ImportReport>('/documents/preview', { method: 'POST', body: { text: await file.text() } })

const isZip = (file: File): boolean => /\.zip$/i.test(file.name)
const zipped = (file: File): Blob => new Blob([file], { type: 'application/zip' })

/** Takes a document, all or nothing, and reads everything again. */
export async function importDocument(file: File): Promise<ImportReport> {
  const key = crypto.randomUUID()
  const report = isZip(file)
    ? await api<ImportReport>('/documents/zip', { method: 'POST', body: zipped(file), key })
    : await api<ImportReport>('/documents', { method: 'POST', body: { text: await file.text() }, key })
  await queryClient.invalidateQueries()
  return report
}

/** Takes an import back. */
export async function undoImport(id: string): Promise<void> {
  await api(`/documents/${id}/undo`, { method: 'POST' })
  await queryClient.invalidateQueries()
}
