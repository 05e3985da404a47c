import type { Performance } from '@velvet-porch/core/output/sound'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'

const said: string[] = []
let ready: () => void = () => undefined

beforeEach(() => {
  said.length = 0
  vi.stubGlobal(
    'AudioContext',
    class {
      readonly state = 'running'
      readonly destination = {}
      readonly audioWorklet = { addModule: () => new Promise<void>((resolve) => (ready = resolve)) }
    },
  )
  vi.stubGlobal(
    'AudioWorkletNode',
    class {
      readonly port = { postMessage: ({ kind }: { kind: string }) => void said.push(kind) }
      connect() {
        return undefined
      }
    },
  )
})
afterEach(() => {
  vi.unstubAllGlobals()
})

const MUSIC = {} as unknown as Performance

async function freshPlayer() {
  vi.resetModules()
  const { player } = await import('../src/score/playback/player.ts')
  player.load(() => MUSIC)
  return player
}

it('plays once the sound has started', async () => {
  const player = await freshPlayer()
  const playing = player.play(0)
  ready()
  await playing
  expect(said).toEqual(['load', 'set', 'play'])
  expect(player.snapshot().playing).toBe(true)
})

it.each([
  ['stops', (p: Awaited<ReturnType<typeof freshPlayer>>) => p.stop()],
  ['leaves the page', (p: Awaited<ReturnType<typeof freshPlayer>>) => p.load(undefined)],
])('is silent to whoever %s while the sound is still starting', async (_, leave) => {
  const player = await freshPlayer()
  const playing = player.play(0)
  leave(player)
  ready()
  await playing
  expect(said).toEqual([])
  expect(player.snapshot().playing).toBe(false)
})

it('asked twice before the sound has started plays once, from where it was asked last', async () => {
  const player = await freshPlayer()
  const both = Promise.all([player.play(0), player.play(960)])
  ready()
  await both
  expect(said.filter((kind) => kind === 'play')).toHaveLength(1)
})
