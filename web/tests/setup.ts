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
  window.PointerEvent ??= class extends MouseEvent {
    readonly isPrimary: boolean
    readonly pointerId: number
    constructor(type: string, init: PointerEventInit = {}) {
      super(type, init)
      this.isPrimary = init.isPrimary ?? false
      this.pointerId = init.pointerId ?? 0
    }
  } as typeof PointerEvent
}

// The test browser lays nothing out, so there is nothing to scroll to.
Element.prototype.scrollIntoView = () => undefined
