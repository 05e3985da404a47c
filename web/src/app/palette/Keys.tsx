import { useEffect, useMemo } from 'react'
import { useParams } from 'react-router'
import { actionFor, useOfferedActions, type Action } from '../../state/actions.ts'
import { useReadOnly } from '../../state/writeLock.ts'
import { onceOpened } from '../../ui/onceOpened.tsx'

const Palette = onceOpened(async () => (await import('./Palette.tsx')).Palette)

const KeyList = onceOpened(async () => (await import('./KeyList.tsx')).KeyList)

/** What lies over the page for whoever looks for something: the palette, or the list of keys. */
export type Finding = 'palette' | 'keys'

/** Keys that do something, the palette (Ctrl+K) and the list of keys (?). Both show what can be done now. */
export function Keys({
  shown,
  onShow,
}: {
  shown: Finding | undefined
  onShow: (shown: Finding | undefined) => void
}) {
  const offered = useOfferedActions()
  const readOnly = useReadOnly(useParams().id)
  const actions = useMemo(() => (readOnly ? offered.filter((a) => !a.writes) : offered), [offered, readOnly])
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const own: readonly Action[] = [
        { id: 'palette', label: '', keys: 'Mod+K', run: () => onShow('palette') },
        { id: 'keys', label: '', keys: '?', run: () => onShow('keys') },
      ]
      const action = actionFor(event, [...actions, ...own])
      if (!action) return
      event.preventDefault()
      action.run()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [actions, onShow])
  const close = () => onShow(undefined)
  return (
    <>
      <Palette opened={shown === 'palette'} actions={actions} onClose={close} />
      <KeyList opened={shown === 'keys'} actions={actions} onClose={close} />
    </>
  )
}
