import type { KeyboardEvent } from 'react'

/** Keys that go along a series of buttons, and by how many. */
const STEPS: Readonly<Record<string, number>> = {
  ArrowRight: 1,
  ArrowDown: 1,
  ArrowLeft: -1,
  ArrowUp: -1,
  Home: -Infinity,
  End: Infinity,
}

/** Moves the keyboard along a row of buttons, or down the rows of a table, that are one stop of the Tab key. */
export function alongSeries(event: KeyboardEvent<HTMLElement>): void {
  const step = STEPS[event.key]
  if (step === undefined) return
  const buttons = [...event.currentTarget.querySelectorAll<HTMLElement>('button, tr[tabindex]')]
  const at = buttons.indexOf(document.activeElement as HTMLElement)
  if (at < 0) return
  event.preventDefault()
  event.stopPropagation()
  buttons[Math.max(0, Math.min(buttons.length - 1, at + step))]!.focus()
}
