import { useEntries, useSaveState } from '../api/app'

/** The save state in words, for the bench posture. */
export function KeptNote() {
  const state = useSaveState()
  const waiting = useEntries().length
  const text = {
    kept: `Kept on this device (${waiting}); sent when the server is back`,
    'needs-you': 'One entry needs your decision at the desk',
    saving: 'Saving …',
    saved: 'Saved',
  }[state]
  return (
    <p
      role="status"
      className={`text-[0.88rem] ${state === 'kept' || state === 'needs-you' ? 'text-warning' : 'muted'}`}
    >
      {text}
    </p>
  )
}
