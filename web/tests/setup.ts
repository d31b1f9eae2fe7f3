import 'fake-indexeddb/auto'
import { randomUUID } from 'node:crypto'
import { TextDecoder, TextEncoder } from 'node:util'

// React notes a trace for every element it makes; the runner asks for a hundred lines of each.
Error.stackTraceLimit = 10

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
  // No style sheet is read here: what hides an element is its own attribute. The full answer takes a twelfth of the time
  // of these tests, as every search by role asks it for every element and all that it stands in.
  const shown = { content: 'none', visibility: 'visible', pointerEvents: 'auto' }
  const styleOf = (display: string, own: Partial<CSSStyleDeclaration>): CSSStyleDeclaration => {
    const style: Record<string, unknown> = { ...shown, display }
    for (const name of ['visibility', 'pointerEvents'] as const) style[name] = own[name] || shown[name]
    return {
      ...style,
      getPropertyValue: (name: string) =>
        style[name.replace(/-(.)/g, (_, c: string) => c.toUpperCase())] ?? own.getPropertyValue?.(name) ?? '',
    } as never
  }
  const UNSEEN = new Set(['SCRIPT', 'STYLE', 'HEAD', 'TEMPLATE', 'TITLE', 'META', 'LINK'])
  const INLINE = new Set(
    'A ABBR B BDI BUTTON CITE CODE EM I INPUT KBD LABEL SMALL SPAN STRONG SUB SUP'.split(' '),
  )
  window.getComputedStyle = (element, pseudo) => {
    if (pseudo) return styleOf('inline', {})
    const own = (element as HTMLElement).style
    const gone = element.hasAttribute('hidden') || UNSEEN.has(element.tagName)
    return styleOf(own.display || (gone ? 'none' : INLINE.has(element.tagName) ? 'inline' : 'block'), own)
  }
  // A label names what it is for, or the field in it. The full answer walks the whole page for every label of every
  // field, a fifth of the time of these tests.
  const FIELDS = 'button, input:not([type=hidden]), meter, output, progress, select, textarea'
  Object.defineProperty(HTMLLabelElement.prototype, 'control', {
    get(this: HTMLLabelElement) {
      if (!this.hasAttribute('for')) return this.querySelector(FIELDS)
      const named = this.ownerDocument.getElementById(this.htmlFor)
      return named?.matches(FIELDS) ? named : null
    },
  })
  const labels = {
    get(this: HTMLElement) {
      const around = this.closest('label')
      const named = this.id ? this.ownerDocument.querySelectorAll(`label[for="${this.id}"]`) : []
      return [...(around && !around.hasAttribute('for') ? [around] : []), ...named]
    },
  }
  for (const kind of [HTMLInputElement, HTMLSelectElement, HTMLTextAreaElement, HTMLButtonElement])
    Object.defineProperty(kind.prototype, 'labels', labels)
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
