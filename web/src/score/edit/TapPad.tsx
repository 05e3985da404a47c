import { Button } from '@mantine/core'
import type { ReactNode } from 'react'

/** A field that is tapped with the pointer or the space bar; a key that is held down is one tap. */
export function TapPad({
  children,
  onTap,
}: {
  children: ReactNode
  /** @param seconds since the page was opened */
  onTap: (seconds: number) => void
}) {
  const tap = (milliseconds: number) => onTap(milliseconds / 1000)
  return (
    <Button
      data-autofocus
      h={56}
      onPointerDown={(e) => tap(e.timeStamp)}
      onKeyDown={(e) => {
        if (e.key !== ' ' || e.repeat) return
        e.preventDefault()
        tap(e.timeStamp)
      }}
      onKeyUp={(e) => e.key === ' ' && e.preventDefault()}
    >
      {children}
    </Button>
  )
}
