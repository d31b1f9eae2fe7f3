import { CoreError } from '../errors'

/** A network that cannot be solved, and the element or node at fault. */
export class BadNetwork extends CoreError {
  constructor(field: string, message: string) {
    super('BadNetwork', field, null, { words: message }, message)
  }
}
