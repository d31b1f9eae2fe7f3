/** Text that is not (yet) a value the server can take, kept on this device so that nothing typed is lost. */
const key = (name: string): string => `ypsometer.draft.${name}`

export function readDraft(name: string): string | null {
  try {
    return localStorage.getItem(key(name))
  } catch {
    return null
  }
}

export function writeDraft(name: string, text: string | null): void {
  try {
    if (text === null) localStorage.removeItem(key(name))
    else localStorage.setItem(key(name), text)
  } catch {
    // Storage refused: the text lives as long as the page.
  }
}
