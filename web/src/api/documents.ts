import type { CsvIn, ImportReport } from '@ypsometer/contract'
import { CSV_IN } from '@ypsometer/contract/tables'
import { api } from './client'
import { queryClient } from './cache'

const isZip = (file: File): boolean => /\.zip$/i.test(file.name)
const zipped = (file: File): Blob => new Blob([file], { type: 'application/zip' })
/** The table that a file is by its name; null for what is no table. */
export const tableOf = (name: string): CsvIn | null =>
  /\.(csv|tsv|txt)$/i.test(name) ? (CSV_IN.find((t) => name.toLowerCase().includes(t)) ?? 'prices') : null

/** Where a file is sent, and as what. */
const sent = async (file: File, table: CsvIn | null): Promise<{ path: string; body: unknown }> =>
  table
    ? { path: `/csv/${table}`, body: { text: await file.text() } }
    : isZip(file)
      ? { path: '/documents/zip', body: zipped(file) }
      : { path: '/documents', body: { text: await file.text() } }

/** Preview of a document or a table; nothing is written. */
export async function lookAtDocument(file: File, table: CsvIn | null): Promise<ImportReport> {
  const { path, body } = await sent(file, table)
  return api<ImportReport>(`${path}/preview`, { method: 'POST', body })
}

/** Takes a document or a table, all or nothing, and reads everything again. */
export async function importDocument(file: File, table: CsvIn | null): Promise<ImportReport> {
  const { path, body } = await sent(file, table)
  const report = await api<ImportReport>(path, { method: 'POST', body, key: crypto.randomUUID() })
  await queryClient.invalidateQueries()
  return report
}

/** Takes an import back. */
export async function undoImport(id: string): Promise<void> {
  await api(`/documents/${id}/undo`, { method: 'POST' })
  await queryClient.invalidateQueries()
}
