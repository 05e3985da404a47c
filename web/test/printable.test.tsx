// @vitest-environment jsdom
import { MantineProvider } from '@mantine/core'
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { bringStages } from '../src/texts/i18n.ts'
import { Printable } from '../src/ui/Printable.tsx'
import { stubBrowser } from './browserStubs.ts'

const print = vi.fn()

beforeEach(async () => {
  stubBrowser()
  vi.stubGlobal('print', print)
  print.mockClear()
  await bringStages()
  render(
    <MantineProvider>
      <Printable title="Capo" note="Guitar · Standard" label="Print this card">
        <p>seven frets</p>
      </Printable>
    </MantineProvider>,
  )
})
afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

const part = () => screen.queryByTestId('printed-part')

describe('a part that prints as a page of its own', () => {
  it('is put beside the page with its title while it is printed, and printed once', async () => {
    expect(part()).toBeNull()
    fireEvent.click(screen.getByRole('button', { name: 'Print this card' }))
    const page = within(part()!)
    expect(page.getByText('Capo').tagName).toBe('H1')
    expect(page.getByText('Guitar · Standard')).toBeDefined()
    expect(page.getByText('seven frets')).toBeDefined()
    // Beside the page, not in it: the page is left out of the print.
    expect(part()!.parentElement).toBe(document.body)
    expect(document.documentElement.dataset['prints']).toBe('part')
    await vi.waitFor(() => expect(print).toHaveBeenCalledOnce())
  })

  it('is gone when it is on paper, and the page is as before', async () => {
    fireEvent.click(screen.getByRole('button', { name: 'Print this card' }))
    await vi.waitFor(() => expect(print).toHaveBeenCalledOnce())
    act(() => void window.dispatchEvent(new Event('afterprint')))
    expect(part()).toBeNull()
    expect(document.documentElement.dataset['prints']).toBeUndefined()
    expect(screen.getByText('seven frets')).toBeDefined()
  })

  it('leaves nothing behind on a page that is left in the middle', () => {
    fireEvent.click(screen.getByRole('button', { name: 'Print this card' }))
    cleanup()
    expect(part()).toBeNull()
    expect(document.documentElement.dataset['prints']).toBeUndefined()
  })
})
