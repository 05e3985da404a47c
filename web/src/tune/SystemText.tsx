import { Button, Textarea } from '@mantine/core'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { TextRange } from './textOfSystem.ts'

/** The ABC of one system in a line of its own beneath it: opened, typed in, closed. */
export function SystemText({
  text,
  range,
  number,
  onText,
}: {
  /** The whole text, and where this system's part of it stands. */
  text: string
  range: TextRange | undefined
  /** Number of the system's first measure. */
  number: number
  onText: (text: string) => void
}) {
  const { t } = useTranslation()
  const [open, setOpen] = useState(false)
  // While somebody types, what stands around the part is what stood there when it was entered.
  const [around, setAround] = useState<{ readonly before: string; readonly after: string }>()
  const [typed, setTyped] = useState('')
  if (!range && !around) return null
  const part = range ? text.slice(range.from, range.to) : ''
  if (!open) {
    return (
      <Button
        className="system-text-button no-print"
        size="compact-xs"
        h={24}
        variant="subtle"
        color="plum"
        aria-label={t('tune.systemOpen', { number })}
        onClick={() => setOpen(true)}
      >
        {t('tune.systemText')}
      </Button>
    )
  }
  return (
    <Textarea
      className="system-text no-print"
      aria-label={t('tune.systemLabel', { number })}
      autosize
      autoFocus
      spellCheck={false}
      value={around ? typed : part.replace(/\n$/, '')}
      onFocus={() => {
        if (!range) return
        const tail = /\n$/.test(part) ? '\n' : ''
        setTyped(tail ? part.slice(0, -1) : part)
        setAround({ before: text.slice(0, range.from), after: tail + text.slice(range.to) })
      }}
      onChange={(event) => {
        const next = event.currentTarget.value
        setTyped(next)
        if (around) onText(around.before + next + around.after)
      }}
      onBlur={() => {
        setAround(undefined)
        setOpen(false)
      }}
      onKeyDown={(event) => {
        // The sheet's own keys stay out of the text.
        event.stopPropagation()
        if (event.key === 'Escape') event.currentTarget.blur()
      }}
    />
  )
}
