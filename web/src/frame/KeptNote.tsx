import { useEntries, useSaveState } from '../api/app'

/** The save state in words, for the bench posture. */
export function KeptNote() {
  const state = useSaveState()
  const waiting = useEntries().length
  const text = {
    kept: `Offline: ${waiting} ${waiting === 1 ? 'change' : 'changes'} saved here, sent on reconnect`,
    'needs-you': 'Conflict: choose a version at the desk',
    'no-room': 'No storage left: keep this page open until it says Saved',
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
