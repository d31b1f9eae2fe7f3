import { useEntries, useSaveState } from '../api/app'

/** The save state in words, for the bench posture. */
export function KeptNote() {
  const state = useSaveState()
  const waiting = useEntries().length
  const text = {
    kept: `Kept on this device (${waiting}); sent when the server is back`,
    'needs-you': 'One entry needs your decision at the desk',
    'no-room': 'No room on this device: keep this page open until it says Saved',
    saving: 'Saving …',
    saved: 'Saved',
  }[state]
  return (
    <p
      role="status"
      className={`text-[0.88rem] ${['kept', 'needs-you', 'no-room'].includes(state) ? 'text-warning' : 'muted'}`}
    >
      {text}
    </p>
  )
}
