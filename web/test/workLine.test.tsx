// @vitest-environment jsdom
import { MantineProvider } from '@mantine/core'
import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query'
import { act, cleanup, render, screen } from '@testing-library/react'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { WorkLine } from '../src/app/WorkLine.tsx'
import { bringStages } from '../src/texts/i18n.ts'
import { stubBrowser } from './browserStubs.ts'

beforeEach(async () => {
  stubBrowser()
  await bringStages()
  vi.useFakeTimers()
})
afterEach(() => {
  cleanup()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

/** A question that takes so long, and the line over it. */
function Asking({ ms }: { ms: number }) {
  useQuery({ queryKey: ['q', ms], queryFn: () => new Promise((done) => setTimeout(() => done(1), ms)) })
  return <WorkLine />
}

const shown = (ms: number) =>
  render(
    <MantineProvider>
      <QueryClientProvider client={new QueryClient()}>
        <Asking ms={ms} />
      </QueryClientProvider>
    </MantineProvider>,
  )
const line = () => screen.queryByRole('progressbar', { name: 'Working' })
const pass = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms))

it('work is seen within 300 ms, and gone when it is done', async () => {
  shown(1000)
  await pass(100)
  expect(line()).toBeNull()
  await pass(200)
  expect(line()).not.toBeNull()
  await pass(800)
  expect(line()).toBeNull()
})

it('what is done at once shows nothing', async () => {
  shown(150)
  for (let t = 0; t < 600; t += 50) {
    await pass(50)
    expect(line()).toBeNull()
  }
})
