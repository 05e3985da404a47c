import { Alert, Button } from '@mantine/core'
import type { ReactNode } from 'react'

/** Something that has to be known of what is shown, with what can be done about it. */
export function Notice({ text, testId, children }: { text: string; testId?: string; children: ReactNode }) {
  return (
    <Alert color="lamp" mt="xs" p="xs" data-testid={testId}>
      {text} {children}
    </Alert>
  )
}

/** What can be done; the first stands out, further ones are plain. */
export function Act({
  plain = false,
  onClick,
  children,
}: {
  plain?: boolean
  onClick: () => void
  children: ReactNode
}) {
  return (
    <Button
      size="compact-sm"
      ml={plain ? 'xs' : 'sm'}
      variant={plain ? 'default' : 'filled'}
      onClick={onClick}
    >
      {children}
    </Button>
  )
}
