import { Suspense, useState, type ComponentType } from 'react'
import { brought } from './brought.ts'

/** What is there only while it is asked for. */
interface Opened {
  readonly opened: boolean
}

/**
 * A dialog whose code comes when it is first opened; from then on it stays, so that it can close as it wants to.
 *
 * @example
 * const BinDialog = onceOpened(async () => (await import('./BinDialog.tsx')).BinDialog)
 * <BinDialog opened={open} onClose={close} />
 */
export function onceOpened<Props extends Opened>(
  load: () => Promise<ComponentType<Props>>,
): ComponentType<Props> {
  const Dialog: ComponentType<Props> = brought(load)
  return function OnceOpened(props: Props) {
    const [asked, setAsked] = useState(props.opened)
    if (props.opened && !asked) setAsked(true)
    return asked ? (
      <Suspense>
        <Dialog {...props} />
      </Suspense>
    ) : null
  }
}
