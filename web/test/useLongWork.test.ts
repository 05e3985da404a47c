// @vitest-environment jsdom
import type { Turns } from '@velvet-porch/core/turns'
import { cleanup, renderHook, waitFor } from '@testing-library/react'
import { Component, type ReactNode } from 'react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { useLongWork } from '../src/ui/useLongWork.ts'

afterEach(cleanup)

/** What was done, turn by turn. */
let done: string[] = []
afterEach(() => {
  done = []
})

function* work(name: string, turns: number): Turns<string> {
  for (let i = 0; i < turns; i++) {
    const until = performance.now() + 15
    while (performance.now() < until);
    done.push(name)
    yield
  }
  return name
}

const begin = (name: string, turns: number) => () => work(name, turns)
const short = begin('short', 0)
const [long, other] = [begin('long', 8), begin('other', 8)]

const using = (first: (() => Turns<string>) | undefined) =>
  renderHook(({ of }) => useLongWork(of), { initialProps: { of: first } })

describe('long work of the page', () => {
  it('is there at once where it is short', () => {
    expect(using(short).result.current).toBe('short')
  })

  it('does not hold the page up where it is long, and comes when it is done', async () => {
    const { result } = using(long)
    expect(result.current).toBeUndefined()
    expect(done.length).toBeLessThan(8)
    await waitFor(() => expect(result.current).toBe('long'))
    expect(done).toHaveLength(8)
  })

  it('keeps what was found until the next is done, and drops what is not wanted any more', async () => {
    const { result, rerender } = using(long)
    await waitFor(() => expect(result.current).toBe('long'))
    rerender({ of: other })
    expect(result.current).toBe('long')
    rerender({ of: short })
    expect(result.current).toBe('short')
    const worked = done.length
    await new Promise((resolve) => setTimeout(resolve, 60))
    expect(done.length - worked).toBeLessThanOrEqual(1)
    expect(result.current).toBe('short')
  })

  it('keeps what short work found while longer work goes on', async () => {
    const { result, rerender } = using(short)
    rerender({ of: long })
    expect(result.current).toBe('short')
    await waitFor(() => expect(result.current).toBe('long'))
    rerender({ of: short })
    expect(result.current).toBe('short')
    rerender({ of: other })
    expect(result.current).toBe('short')
    await waitFor(() => expect(result.current).toBe('other'))
  })

  it('that fails is an error of the page, as short work is that fails', async () => {
    const failing = () =>
      (function* (): Turns<string> {
        yield* work('failing', 4)
        throw new Error('nothing can be taught of this')
      })()
    const caught: unknown[] = []
    class Shown extends Component<{ children: ReactNode }, { failed: boolean }> {
      override state = { failed: false }
      static getDerivedStateFromError = () => ({ failed: true })
      override componentDidCatch(error: unknown) {
        caught.push(error)
      }
      override render() {
        return this.state.failed ? null : this.props.children
      }
    }
    const quiet = vi.spyOn(console, 'error').mockImplementation(() => undefined)
    renderHook(() => useLongWork(failing), { wrapper: Shown })
    await waitFor(() => expect(caught).toEqual([new Error('nothing can be taught of this')]))
    quiet.mockRestore()
  })

  it('finds nothing where nothing is asked', () => {
    expect(using(undefined).result.current).toBeUndefined()
  })
})
