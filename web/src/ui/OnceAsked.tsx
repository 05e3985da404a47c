import { Suspense, useState, type ReactNode } from 'react'

/** What the button takes over while the menu has not come. */
export interface Unfolding {
  readonly 'aria-haspopup': 'menu'
  readonly 'aria-expanded': false
  readonly onClick: () => void
}

/**
 * A menu that is made, and its code brought, when it is first asked for; until it has come its button stands there alone.
 *
 * @example
 * <OnceAsked button={(unfolding) => <MoreButton {...unfolding} />}>
 *   <RailMenu />
 * </OnceAsked>
 */
export function OnceAsked({
  button,
  children,
}: {
  readonly button: (unfolding: Unfolding) => ReactNode
  /** The menu with a button of its own; it is open when it comes. */
  readonly children: ReactNode
}) {
  const [asked, setAsked] = useState(false)
  const alone = button({
    'aria-haspopup': 'menu',
    'aria-expanded': false,
    onClick: () => setAsked(true),
  })
  return asked ? <Suspense fallback={alone}>{children}</Suspense> : alone
}
