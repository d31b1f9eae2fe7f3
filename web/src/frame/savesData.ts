/** Connection as a browser tells of it (Network Information API, WICG draft); not all of them do. */
interface Connected {
  readonly connection?: { readonly saveData?: boolean }
}

/** Did the reader ask the browser to save data? Then nothing is fetched, or worked out, before it is asked for. */
export const savesData = (): boolean => (navigator as Connected).connection?.saveData === true
