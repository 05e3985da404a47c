import { Button, Textarea } from '@mantine/core'
import { memo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import css from './SystemText.module.css'

/** A part of the text with what stands around it. */
export interface TextPart {
  readonly before: string
  readonly own: string
  readonly after: string
}

interface Props {
  /** Index of the system's first and of its last measure. */
  readonly from: number
  readonly to: number
  /** Number of the system's first measure. */
  readonly number: number
  /** The part of the text that writes some measures as it is now; undefined where the text does not say. */
  readonly partOf: (from: number, to: number) => TextPart | undefined
  readonly onText: (text: string) => void
}

/** The ABC of one system in a line of its own beneath it: opened, typed in, closed. */
export const SystemText = memo(function SystemText({ from, to, number, partOf, onText }: Props) {
  const { t } = useTranslation()
  // While somebody types, what stands around the part is what stood there when it was opened.
  const [part, setPart] = useState<TextPart>()
  if (!part) {
    return (
      <Button
        className={`${css['system-text-button']} no-print`}
        size="compact-xs"
        h={24}
        variant="subtle"
        color="plum"
        aria-label={t('tune.systemOpen', { number })}
        onClick={() => setPart(partOf(from, to))}
      >
        {t('tune.systemText')}
      </Button>
    )
  }
  return (
    <Textarea
      className={`${css['system-text']} no-print`}
      aria-label={t('tune.systemLabel', { number })}
      autosize
      autoFocus
      spellCheck={false}
      value={part.own}
      onChange={(event) => {
        const own = event.currentTarget.value
        setPart({ ...part, own })
        onText(part.before + own + part.after)
      }}
      onBlur={() => setPart(undefined)}
      onKeyDown={(event) => {
        // The sheet's own keys stay out of the text.
        event.stopPropagation()
        if (event.key === 'Escape') event.currentTarget.blur()
      }}
    />
  )
})
