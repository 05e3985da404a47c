// @vitest-environment jsdom
import './support.ts'
import { act, cleanup, renderHook, waitFor } from '@testing-library/react'
import type { ReactNode } from 'react'
import { MemoryRouter } from 'react-router'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import '../src/texts/i18n.ts'
import { useFound } from '../src/app/palette/useFound.ts'
import type { Action } from '../src/state/actions.ts'
import { db } from '../src/state/db.ts'
import { addTunes, binTune } from '../src/state/shelf.ts'
import { stubBrowser } from './browserStubs.ts'
import { tuneOf } from './support.ts'

const run = vi.fn()
const ACTIONS: readonly Action[] = [
  { id: 'play', label: 'Play', keys: 'Space', run },
  { id: 'display', label: 'Display the neck', run },
  { id: '/neck', label: 'Go to Neck card', group: 'places', run },
  { id: 'dark', label: 'Dark mode', group: 'settings', run },
]

const router = ({ children }: { children: ReactNode }) => <MemoryRouter>{children}</MemoryRouter>

beforeEach(async () => {
  stubBrowser()
  Element.prototype.checkVisibility = () => true
  document.body.innerHTML = '<main id="stage"><button>Stop</button><button>Play this piece</button></main>'
  await Promise.all(db.tables.map((t) => t.clear()))
  await addTunes([
    { ...tuneOf('C4|]', 'a'), title: 'Plain Sailing', composer: 'Odile Marrow' },
    { ...tuneOf('C4|]', 'b'), title: 'Gone to the Bin' },
  ])
  await binTune('b')
})
afterEach(() => {
  cleanup()
  document.body.replaceChildren()
  vi.unstubAllGlobals()
})

/** An open palette: what is typed in it, and what is listed then, group by group. */
function palette() {
  const { result } = renderHook(() => useFound(ACTIONS, true), { wrapper: router })
  return (typed: string): Record<string, string[]> => {
    act(() => result.current.setQuery(typed))
    return Object.fromEntries(result.current.groups.map((g) => [g.group, g.offers.map((o) => o.label)]))
  }
}

describe('what the palette finds', () => {
  it('is, with nothing typed, what can be done here and where to go', () => {
    expect(palette()('')).toEqual({
      'On this page': ['Play', 'Display the neck'],
      Places: ['Go to Neck card'],
      Settings: ['Dark mode'],
    })
  })

  it('lists the nearest name first, in each group and among them', () => {
    const listed = palette()
    expect(listed('play')).toEqual({
      'On this page': ['Play', 'Display the neck'],
      Controls: ['Play this piece'],
    })
    expect(listed('stop')).toEqual({ Controls: ['Stop'] })
    // What begins with it stands before what only holds it.
    expect(Object.keys(listed('dark'))[0]).toBe('Settings')
    expect(listed('this')['Controls']).toEqual(['Play this piece'])
  })

  it('finds a tune by its name and by who wrote it, and none that lies in the bin', async () => {
    const listed = palette()
    await waitFor(() => expect(listed('plain sail')['Tunes']).toEqual(['Open “Plain Sailing”']))
    expect(listed('marrow')['Tunes']).toEqual(['Open “Plain Sailing”'])
    expect(listed('gone to')['Tunes']).toBeUndefined()
  })

  it('offers the shapes of whatever reads as a chord, in small letters too, and of nothing else', () => {
    const listed = palette()
    expect(listed('bm7')['Chords']).toEqual(['Shapes of Bm7'])
    expect(listed('F#m')['Chords']).toEqual(['Shapes of F#m'])
    expect(listed('stop')['Chords']).toBeUndefined()
    expect(listed('b m')['Chords']).toBeUndefined()
  })

  it('looks at no page and no shelf while it is closed', () => {
    const { result } = renderHook(() => useFound(ACTIONS, false), { wrapper: router })
    act(() => result.current.setQuery('stop'))
    expect(result.current.groups).toEqual([])
  })
})
