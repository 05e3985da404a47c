// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { controlsIn, nameOf } from '../src/app/palette/controls.ts'
import { alongSeries } from '../src/ui/alongSeries.ts'
import { holds } from '../src/ui/holds.ts'

beforeEach(() => {
  // Neither is laid out here.
  Element.prototype.checkVisibility = function visible(this: Element) {
    return this.closest('[hidden], details:not([open]) > :not(summary)') === null
  }
  Element.prototype.scrollIntoView = vi.fn()
})
afterEach(cleanup)

const found = () =>
  controlsIn(document.body).map(({ name, within }) => (within ? `${name} < ${within}` : name))

describe('controls as the palette finds them', () => {
  it('are called as they are read out', () => {
    render(
      <>
        <span id="size">Size of the sheet</span>
        <button aria-label="Play">▶</button>
        <button aria-labelledby="size" />
        <label>
          Tempo <input type="number" />
        </label>
        <input placeholder="Find a tune" />
        <a href="/x">To the shelf</a>
        <div role="radiogroup" aria-label="Level">
          <label>
            <input type="radio" name="l" /> Level 1
          </label>
          <label>
            <input type="radio" name="l" /> two
          </label>
        </div>
        <details>
          <summary>Locks</summary>
          <button>Lock this</button>
        </details>
      </>,
    )
    expect(found()).toEqual([
      'Play',
      'Size of the sheet',
      'Tempo',
      'Find a tune',
      'To the shelf',
      'Level 1',
      'Level: two',
      'Locks',
      'Lock this',
    ])
  })

  it('leave out what cannot be used: disabled, hidden, drawn, cells of a series', () => {
    render(
      <>
        <button disabled>Undo</button>
        <button hidden>Leave full screen</button>
        <div aria-hidden="true">
          <button>Ghost</button>
        </div>
        <div data-series>
          <button>Measure 1</button>
        </div>
        <svg>
          <a href="/note">note</a>
        </svg>
        <button>Redo</button>
        <button>Redo</button>
      </>,
    )
    expect(found()).toEqual(['Redo'])
  })

  it('are pressed, ticked or put under the keyboard, and unfolded where they are folded', () => {
    const pressed = vi.fn()
    render(
      <>
        <label>
          Counts <input type="checkbox" />
        </label>
        <label>
          Tempo <input type="number" />
        </label>
        <details>
          <summary>Locks</summary>
          <button onClick={pressed}>Lock this</button>
        </details>
      </>,
    )
    const use = (name: string) =>
      controlsIn(document.body)
        .find((c) => c.name === name)!
        .use()
    use('Counts')
    expect(screen.getByRole<HTMLInputElement>('checkbox').checked).toBe(true)
    use('Tempo')
    expect(document.activeElement).toBe(screen.getByRole('spinbutton'))
    use('Lock this')
    expect(document.querySelector('details')!.open).toBe(true)
    expect(pressed).toHaveBeenCalledOnce()
  })

  it('are found inside a button that unfolds them, and reached there', async () => {
    const unfold = () =>
      setTimeout(() => {
        const box = document.createElement('input')
        box.setAttribute('aria-label', 'Degrees')
        document.body.append(box)
      })
    render(
      <button {...holds(['Counts', 'Degrees'])} onClick={unfold}>
        Sheet
      </button>,
    )
    expect(found()).toEqual(['Sheet', 'Counts < Sheet', 'Degrees < Sheet'])
    controlsIn(document.body)[2]!.use()
    await vi.waitFor(() => expect(nameOf(document.activeElement as HTMLElement)).toBe('Degrees'))
    document.activeElement!.remove()
  })

  it('take the keyboard from nobody who goes on before they have appeared', async () => {
    const box = document.createElement('input')
    box.setAttribute('aria-label', 'Degrees')
    render(
      <>
        <button {...holds(['Degrees'])}>Sheet</button>
        <input aria-label="Find" />
      </>,
    )
    controlsIn(document.body)
      .find((c) => c.name === 'Degrees')!
      .use()
    const find = screen.getByRole('textbox', { name: 'Find' })
    find.focus()
    fireEvent.keyDown(find, { key: 'b' })
    document.body.append(box)
    // Frames in which it would have been looked for.
    for (let frame = 0; frame < 3; frame++) await new Promise((done) => requestAnimationFrame(done))
    expect(document.activeElement).toBe(find)
    box.remove()
  })
})

describe('a series that is one stop', () => {
  it('is walked by arrow keys, and ends at its ends', () => {
    render(
      <div role="group" data-series onKeyDown={alongSeries}>
        <button>1</button>
        <button>2</button>
        <button>3</button>
      </div>,
    )
    const key = (name: string) => {
      fireEvent.keyDown(document.activeElement!, { key: name })
      return document.activeElement!.textContent
    }
    screen.getByText('1').focus()
    expect(['ArrowRight', 'ArrowRight', 'ArrowRight', 'Home', 'ArrowLeft', 'End', 'x'].map(key)).toEqual([
      '2',
      '3',
      '3',
      '1',
      '1',
      '3',
      '3',
    ])
  })
})
