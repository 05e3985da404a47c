import { Button, Popover } from '@mantine/core'
import { useState, type ReactNode } from 'react'
import { holds } from '../../ui/holds.ts'

/** A button of the writing bar and what unfolds from it. */
export function BarPopover({
  label,
  size = 'compact-sm',
  disabled = false,
  stays = false,
  held = [],
  children,
}: {
  label: string
  size?: 'compact-sm' | 'compact-xs'
  disabled?: boolean
  /** True where it stays open, and the page stays within reach, until it is closed. */
  stays?: boolean
  /** Names of the controls in it. */
  held?: readonly string[]
  /** Made while it is open; is given what closes it. */
  children: (close: () => void) => ReactNode
}) {
  const [open, setOpen] = useState(false)
  return (
    <Popover
      opened={open}
      onChange={setOpen}
      position="bottom-start"
      trapFocus={!stays}
      closeOnClickOutside={!stays}
      returnFocus
      withinPortal
      shadow="md"
    >
      <Popover.Target>
        <Button
          size={size}
          variant="default"
          disabled={disabled}
          aria-expanded={open}
          {...holds(held)}
          onClick={() => setOpen(!open)}
        >
          {label}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>{open ? children(() => setOpen(false)) : null}</Popover.Dropdown>
    </Popover>
  )
}
