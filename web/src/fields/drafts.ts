import { keepText, keptText } from '../api/room'

/** Text that is not (yet) a value the server can take, kept on this device so that nothing typed is lost. */
const key = (name: string): string => `ypsometer.draft.${name}`

export const readDraft = (name: string): string | null => keptText(key(name))
export const writeDraft = (name: string, text: string | null): void => keepText(key(name), text)
