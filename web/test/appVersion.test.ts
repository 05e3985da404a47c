// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from 'vitest'

class FakeWorker extends EventTarget {
  state: ServiceWorkerState = 'installing'
  readonly said: unknown[] = []
  to(state: ServiceWorkerState) {
    this.state = state
    this.dispatchEvent(new Event('statechange'))
  }
  postMessage(message: unknown) {
    this.said.push(message)
  }
}

class FakeRegistration extends EventTarget {
  active: FakeWorker | null = null
  waiting: FakeWorker | null = null
  installing: FakeWorker | null = null
  update = vi.fn(() => Promise.resolve())
  /** A version sets out, as the browser says it. */
  comes(): FakeWorker {
    this.installing = new FakeWorker()
    this.dispatchEvent(new Event('updatefound'))
    return this.installing
  }
  installed() {
    this.waiting = this.installing
    this.installing = null
    this.waiting!.to('installed')
  }
}

let registration: FakeRegistration
let container: EventTarget & { controller: unknown; register: () => Promise<FakeRegistration> }
let reloads = 0

/** A window of its own, as it begins. */
async function windowOpens() {
  vi.resetModules()
  const { keepAppHere, takeNewer, useAppVersion } = await import('../src/state/appVersion.ts')
  const { renderHook } = await import('@testing-library/react')
  return { keepAppHere, takeNewer, seen: () => renderHook(() => useAppVersion()).result.current }
}

beforeEach(() => {
  registration = new FakeRegistration()
  container = Object.assign(new EventTarget(), {
    controller: null,
    register: () => Promise.resolve(registration),
  })
  reloads = 0
  vi.stubGlobal('navigator', { serviceWorker: container })
  vi.stubGlobal('location', { reload: () => (reloads += 1) })
})

/** A version is kept and drives this window. */
const kept = () => {
  registration.active = Object.assign(new FakeWorker(), { state: 'activated' as const })
  container.controller = registration.active
}

describe('the version of the app', () => {
  it('that comes first is kept, and is no newer one', async () => {
    const { keepAppHere, seen } = await windowOpens()
    const first = registration.comes()
    await keepAppHere()
    expect(seen()).toEqual({ keptHere: false, newer: undefined })
    registration.installed()
    registration.active = first
    first.to('activated')
    container.dispatchEvent(new Event('controllerchange'))
    expect(seen()).toEqual({ keptHere: true, newer: undefined })
  })

  it('is looked for as soon as a window opens, and again when the network is back', async () => {
    const { keepAppHere } = await windowOpens()
    kept()
    await keepAppHere()
    expect(registration.update).toHaveBeenCalledTimes(1)
    dispatchEvent(new Event('online'))
    expect(registration.update).toHaveBeenCalledTimes(2)
  })

  it.each([
    ['sets out later', async (open: () => Promise<void>) => (await open(), registration.comes())],
    [
      'set out before the window listened',
      async (open: () => Promise<void>) => {
        const newer = registration.comes()
        await open()
        return newer
      },
    ],
  ])('a newer one that %s is offered once it is whole, and taken when asked', async (_, comes) => {
    const { keepAppHere, takeNewer, seen } = await windowOpens()
    kept()
    const newer = await comes(keepAppHere)
    expect(seen().newer).toBeUndefined()
    registration.installed()
    expect(seen().newer).toBe('waiting')
    await takeNewer()
    expect(newer.said).toEqual([{ type: 'SKIP_WAITING' }])
    expect(reloads).toBe(0)
    container.dispatchEvent(new Event('controllerchange'))
    expect(reloads).toBe(1)
  })

  it('a newer one that waits already is offered at once', async () => {
    const { keepAppHere, seen } = await windowOpens()
    kept()
    registration.comes()
    registration.installed()
    await keepAppHere()
    expect(seen().newer).toBe('waiting')
  })

  it('taken in another window loads nothing anew here', async () => {
    const { keepAppHere, takeNewer, seen } = await windowOpens()
    kept()
    await keepAppHere()
    container.dispatchEvent(new Event('controllerchange'))
    expect(seen().newer).toBe('elsewhere')
    expect(reloads).toBe(0)
    await takeNewer()
    expect(reloads).toBe(1)
  })

  it('goes on as it is where the browser forbids to keep it, or no server answers', async () => {
    const { keepAppHere, seen } = await windowOpens()
    registration.update.mockRejectedValue(new TypeError('no server'))
    kept()
    await keepAppHere()
    expect(seen()).toEqual({ keptHere: true, newer: undefined })
    const other = await windowOpens()
    container.register = () => Promise.reject(new DOMException('forbidden'))
    await other.keepAppHere()
    expect(other.seen()).toEqual({ keptHere: false, newer: undefined })
  })
})
