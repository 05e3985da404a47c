import { vi } from 'vitest'

/** Puts in place what a browser has and the page of a test has not; `vi.unstubAllGlobals` takes it away. */
export function stubBrowser(): void {
  vi.stubGlobal('matchMedia', () => ({ matches: false, addEventListener() {}, removeEventListener() {} }))
  vi.stubGlobal(
    'ResizeObserver',
    class {
      observe() {}
      unobserve() {}
      disconnect() {}
    },
  )
  if (!('fonts' in document))
    Object.defineProperty(document, 'fonts', { value: new EventTarget(), configurable: true })
  Element.prototype.scrollIntoView = () => undefined
}
