// @vitest-environment jsdom
import { MantineProvider } from '@mantine/core'
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import '../src/texts/i18n.ts'
import { Part } from '../src/ui/Part.tsx'
import { stubBrowser } from './browserStubs.ts'

/** What the sheet of the test shows; one that is broken fails as it is drawn. */
function Sheet({ broken }: { broken: boolean }) {
  if (broken) throw new Error('no such measure')
  return <p>four measures</p>
}

const page = (broken: boolean, of: string) => (
  <MantineProvider>
    <Part name="sheet" of={[of]}>
      <Sheet broken={broken} />
    </Part>
    <p>the neck</p>
  </MantineProvider>
)

beforeEach(() => {
  stubBrowser()
  // React says each error that is caught.
  vi.spyOn(console, 'error').mockImplementation(() => undefined)
})
afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
  vi.restoreAllMocks()
})

describe('a part of the page that fails', () => {
  it('is said with its reason; the others stay', () => {
    render(page(true, 'a'))
    expect(screen.getByRole('alert').textContent).toContain('The sheet could not be shown')
    expect(screen.getByRole('alert').textContent).toContain('no such measure')
    expect(screen.getByText('the neck')).toBeTruthy()
  })

  it('is there again when what it shows has changed', () => {
    const { rerender } = render(page(true, 'a'))
    rerender(page(false, 'b'))
    expect(screen.getByText('four measures')).toBeTruthy()
    expect(screen.queryByRole('alert')).toBeNull()
  })

  it('is tried again on request', () => {
    const { rerender } = render(page(true, 'a'))
    rerender(page(false, 'a'))
    expect(screen.queryByText('four measures')).toBeNull()
    fireEvent.click(screen.getByRole('button', { name: 'Show it again' }))
    expect(screen.getByText('four measures')).toBeTruthy()
  })
})
