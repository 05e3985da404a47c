import { describe, expect, it, vi } from 'vitest'
import { actionFor, type Action } from '../src/shell/actions.ts'

const action = (id: string, keys: string): Action => ({ id, label: id, keys, run: vi.fn() })
const actions = [
  action('play', 'Space'),
  action('undo', 'Mod+Z'),
  action('redo', 'Mod+Shift+Z'),
  action('help', '?'),
  action('open', 'O'),
  action('close', 'Escape'),
]

/** A key press on an elemen/** What a key press on an element of the page means. `first` is what the page itself does with it before. */
function press(
  key: string,
  mods: KeyboardEventInit = {},
  inside = '<p id="at"></p>',
  first?: () => void,
): string | undefined {
  document.body.innerHTML = inside
  let meant: Action | undefined
  const listen = (event: KeyboardEvent) => (meant = actionFor(event, actions))
  const before = () => first?.()
  document.body.addEventListener('keydown', before)
  window.addEventListener('keydown', listen)
  document
    .querySelector('#at')!
    .dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, composed: true, ...mods }))
  window.removeEventListener('keydown', listen)
  document.body.removeEventListener('keydown', before)
  return meant?.id
}

t('Escape closes what lies over the page before anything else', () => {
    expect(press('Escape')).toBe('close')
    const dialog = '<div role="dialog"><span><input type="radio" id="at" /></span></div>'
    expect(press('Escape', {}, dialog)).toBeUndefined()
    // What closes takes its contents out of the page before the key is looked at.
    expect(press('Escape', {}, dialog, () => document.querySelector('span')!.remove())).toBeUndefined()
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
    for (const field of [
      '<input id="at" />',
      '<textarea id="at"></textarea>',
      '<div class="cm-editor"><p id="at"></p></div>',
    ]) {
      expect(press('o', {}, field)).toBeUndefined()
      expect(press('z', { ctrlKey: true }, field)).toBeUndefined()
    }
    expect(press('o', {}, '<input type="radio" id="at" />')).toBe('open')
  })

  it('Space presses the button that has the focus', () => {
    expect(press(' ', {}, '<button id="at"></button>')).toBeUndefined()
    expect(press('o', {}, '<button id="at"></button>')).toBe('open')
  })
})
