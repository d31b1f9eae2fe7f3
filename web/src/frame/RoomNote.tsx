import { noRoom } from '../api/room'

/** Says that this device keeps nothing more; nothing while it does. */
export function RoomNote() {
  if (!noRoom.use()) return null
  return (
    <p role="status" className="no-print text-warning border-warning border-b px-4 py-1 font-medium sm:px-6">
      No room on this device: its storage is full, or the window is private. What you type goes to the server
      at once; keep this page open until it says Saved.
    </p>
  )
}
