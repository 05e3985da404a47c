// @vitest-environment node
import { describe, expect, it, vi } from 'vitest'
import { actionFor, type Action } from '../src/state/actions.ts'

const action = (id: string, keys: string): Action => ({ id, label: id, keys, run: vi.fn() })
const actions = [
  action('play', 'Space'),
  action('undo', 'Mod+Z'),
  action('redo', 'Mod+Shift+Z'),
  action('help', '?'),
  action('open', 'O'),
  action('close', 'Escape'),
]

/** A key press on an element that lies in elements that match some selectors. */
const press = (
  key: string,
  mods: { ctrlKey?: boolean; metaKey?: boolean; shiftKey?: boolean } = {},
  inside: readonly string[] = [],
) =>
  actionFor(
    {
      key,
      ctrlKey: false,
      metaKey: false,
      shiftKey: false,
      ...mods,
      target: {
        closest: (list: string) => (list.split(',').some((s) => inside.includes(s.trim())) ? {} : null),
      },
      // The window, at the end of the path, is no element.
      composedPath: () => [...inside.map((s) => ({ matches: (list: string) => list.includes(s) })), {}],
    } as unknown as KeyboardEvent,
    actions,
  )?.id

describe('keys', () => {
  it('Escape closes what lies over the page before anything else', () => {
    expect(press('Escape')).toBe('close')
    expect(press('Escape', {}, ['[role="dialog"]'])).toBeUndefined()
  })

  it('mean their action, in either case and with either modifier', () => {
    expect(press(' ')).toBe('play')
    expect(press('o')).toBe('open')
    expect(press('z', { ctrlKey: true })).toBe('undo')
    expect(press('z', { metaKey: true })).toBe('undo')
    expect(press('Z', { ctrlKey: true, shiftKey: true })).toBe('redo')
    expect(press('?', { shiftKey: true })).toBe('help')
    expect(press('x')).toBeUndefined()
  })

  it('belong to the field while somebody types', () => {
    for (const field of ['input:not([type="radio"]):not([type="checkbox"])', 'textarea', '.cm-editor']) {
      expect(press('o', {}, [field])).toBeUndefined()
      expect(press('z', { ctrlKey: true }, [field])).toBeUndefined()
    }
  })

  it('Space presses the button that has the focus', () => {
    expect(press(' ', {}, ['button'])).toBeUndefined()
    expect(press('o', {}, ['button'])).toBe('open')
  })
})
