// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import { MantineProvider } from '@mantine/core'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, render, screen } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { ShelfPage } from '../src/features/shelf/ShelfPage.tsx'
import { bringStages } from '../src/texts/i18n.ts'
import { stubBrowser } from './browserStubs.ts'

beforeEach(async () => {
  stubBrowser()
  await bringStages()
})
afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

// The button of an unread shelf is replaced by that of an empty one: a press that spans both would be lost.
it('nothing can be pressed before the shelf is read', async () => {
  render(
    <MantineProvider>
      <QueryClientProvider client={new QueryClient()}>
        <MemoryRouter>
          <ShelfPage onEmpty={() => undefined} />
        </MemoryRouter>
      </QueryClientProvider>
    </MantineProvider>,
  )
  expect(screen.queryByRole('button', { name: 'Paste a tune or song' })).toBeNull()
  expect(await screen.findByRole('button', { name: 'Paste a tune or song' })).toBeTruthy()
})
