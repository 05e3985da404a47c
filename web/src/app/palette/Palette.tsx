import { Kbd } from '@mantine/core'
import { Spotlight, spotlight } from '@mantine/spotlight'
import { useEffect, useRef, useState, type KeyboardEvent } from 'react'
import { useTranslation } from 'react-i18next'
import type { Action } from '../../state/actions.ts'
import { shownKeys } from './shownKeys.ts'
import { useFound } from './useFound.ts'

/** Finds whatever is called so: what can be done, controls, places, tunes, chords, settings. */
export function Palette({
  opened,
  actions,
  onClose,
}: {
  opened: boolean
  actions: readonly Action[]
  onClose: () => void
}) {
  const { t } = useTranslation()
  const [stands, setStands] = useState(false)
  const { query, setQuery, groups } = useFound(actions, stands)
  // Where the keyboard was, and what was chosen: one of them has it when the palette is gone.
  const before = useRef<HTMLElement | null>(null)
  const chosen = useRef<(() => void) | null>(null)
  // The list scrolls: the keyboard must reach it.
  const found = { viewportProps: { tabIndex: 0, role: 'group', 'aria-label': t('keys.found') } }
  useEffect(() => {
    if (opened) spotlight.open()
  }, [opened])
  const open = () => {
    before.current = document.activeElement as HTMLElement | null
    chosen.current = null
    setStands(true)
  }
  // A list that has only just come may have nothing chosen in it yet: Enter takes its first.
  const enter = (event: KeyboardEvent) => {
    if (event.key !== 'Enter') return
    const shown = event.currentTarget
      .closest('[role="dialog"]')
      ?.querySelectorAll('.mantine-Spotlight-action')
    const at = [...(shown ?? [])].findIndex((button) => button.hasAttribute('data-selected'))
    const offer = groups.flatMap((g) => g.offers)[Math.max(0, at)]
    if (!offer) return
    event.preventDefault()
    chosen.current = offer.run
    spotlight.close()
  }
  const gone = () => {
    setStands(false)
    onClose()
    setQuery('')
    if (chosen.current) chosen.current()
    else before.current?.focus()
  }
  return (
    <Spotlight.Root
      shortcut={null}
      query={query}
      onQueryChange={setQuery}
      onSpotlightOpen={open}
      onExitTransitionEnd={gone}
      transitionProps={{ duration: 0 }}
      returnFocus={false}
      attributes={{ content: { 'aria-label': t('keys.search') } }}
      scrollable
      maxHeight="60vh"
    >
      <Spotlight.Search aria-label={t('keys.search')} placeholder={t('keys.search')} onKeyDown={enter} />
      <Spotlight.ActionsList {...found}>
        {groups.map(({ group, offers }) => (
          <Spotlight.ActionsGroup key={group} label={group}>
            {offers.map((o) => (
              <Spotlight.Action
                key={o.id}
                label={o.label}
                {...(o.description === undefined ? {} : { description: o.description })}
                highlightQuery
                rightSection={o.keys ? <Kbd>{shownKeys(o.keys)}</Kbd> : undefined}
                onClick={() => {
                  chosen.current = o.run
                }}
              />
            ))}
          </Spotlight.ActionsGroup>
        ))}
        {groups.length === 0 ? <Spotlight.Empty>{t('keys.nothing')}</Spotlight.Empty> : null}
      </Spotlight.ActionsList>
    </Spotlight.Root>
  )
}
