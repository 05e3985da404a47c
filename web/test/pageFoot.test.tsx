// @vitest-environment jsdom
import { cleanup, render } from '@testing-library/react'
import fc from 'fast-check'
import { afterEach, expect, it } from 'vitest'
import { cssText, PageFoot } from '../src/ui/PageFoot.tsx'

afterEach(cleanup)

/** What a browser makes of a text between quotes in CSS (CSS Syntax Level 3, 4.3.5 and 4.3.7), read by hand. */
function read(quoted: string): string {
  expect(quoted.at(0)).toBe('"')
  expect(quoted.at(-1)).toBe('"')
  const inside = quoted.slice(1, -1)
  expect(inside.replace(/\\[0-9a-f]+ /g, '')).not.toMatch(/["\\\n\r\f]/)
  return inside.replace(/\\([0-9a-f]+) /g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16)))
}

it('a title is the same when the style is read, whatever is in it, and never ends the style', () => {
  fc.assert(
    fc.property(
      fc.oneof(fc.string(), fc.constantFrom('"}', '</style><b>', 'a\\', 'two\nlines', "Wren's “Round”")),
      (title) => {
        expect(read(cssText(title))).toBe(title)
        expect(cssText(title)).not.toContain('<')
      },
    ),
  )
})

it('stands at the foot with the number of the page and of all pages', () => {
  const { container } = render(<PageFoot title="Gate Latch" />)
  const style = container.querySelector('style')?.textContent
  expect(style).toMatch(/@bottom-left \{ content: "Gate Latch";/)
  expect(style).toMatch(/@bottom-right \{ content: counter\(page\) " \/ " counter\(pages\);/)
})
