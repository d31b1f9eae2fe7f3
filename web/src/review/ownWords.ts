/** The editor’s words to a section: what was written, never what every object has. */
export const ownWords = (words: Readonly<Record<string, string>>, section: string): string =>
  Object.hasOwn(words, section) ? (words[section] ?? '') : ''
