import 'fake-indexeddb/auto'
import { randomUUID } from 'node:crypto'
import { TextDecoder, TextEncoder } from 'node:util'

/** What a browser has and jsdom lacks. */
if (typeof window !== 'undefined') {
  Object.assign(globalThis, { TextEncoder, TextDecoder })
  Object.defineProperty(window.crypto, 'randomUUID', { value: randomUUID, configurable: true })
  globalThis.structuredClone = (value: unknown) => JSON.parse(JSON.stringify(value)) as never
  globalThis.ResizeObserver = class {
    observe(): void {}
    unobserve(): void {}
    disconnect(): void {}
  }
}

// The test browser lays nothing out, so there is nothing to scroll to.
Element.prototype.scrollIntoView = () => undefined
