import type { Status } from '@ypsometer/contract'
import { useQuery } from '@tanstack/react-query'
import { api } from '../api/client'
import { showWhen } from '../settings/when'

const DAY = 24 * 3600 * 1000
/** Days after which a backup is called old: the nightly one has failed for a whole weekend. */
const OLD = 3

/** How the record is kept, as the server last said. */
export const useStatus = () =>
  useQuery({
    queryKey: ['status'],
    queryFn: ({ signal }) => api<Status>('/status', { signal }),
    staleTime: 10 * 60 * 1000,
  })

/** Says when the last backup is old; nothing while it is fresh, or while nobody has asked for backups. */
export function BackupNote() {
  const { data } = useStatus()
  const at = data?.backup?.at
  if (!at) return null
  const days = Math.floor((Date.now() - Date.parse(at)) / DAY)
  if (days < OLD) return null
  return (
    <p role="status" className="no-print text-warning border-warning border-b px-4 py-1 font-medium sm:px-6">
      Last backup: {days} days ago ({showWhen(at)}). The nightly backup failed. Check the server log, or run{' '}
      <code className="text-[0.88em]">npm run backup</code>.
    </p>
  )
}
