// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react'
import { afterEach, expect, it, vi } from 'vitest'
import { onceOpened } from '../src/ui/onceOpened.tsx'

afterEach(cleanup)

const Question = ({ opened, text }: { opened: boolean; text: string }) => <p>{opened ? text : 'closing'}</p>

it('brings a dialog when it is first opened, once, and keeps it for its closing', async () => {
  const load = vi.fn(async () => Promise.resolve(Question))
  const Dialog = onceOpened(load)
  const page = render(<Dialog opened={false} text="Really?" />)
  expect(load).not.toHaveBeenCalled()
  expect(page.container.textContent).toBe('')
  page.rerender(<Dialog opened text="Really?" />)
  expect(await screen.findByText('Really?')).toBeDefined()
  page.rerender(<Dialog opened={false} text="Really?" />)
  expect(screen.getByText('closing')).toBeDefined()
  page.rerender(<Dialog opened text="Again?" />)
  expect(screen.getByText('Again?')).toBeDefined()
  expect(load).toHaveBeenCalledTimes(1)
})

it('brings it at once where it is open from the start', async () => {
  const Dialog = onceOpened(async () => Promise.resolve(Question))
  render(<Dialog opened text="Really?" />)
  expect(await screen.findByText('Really?')).toBeDefined()
})
