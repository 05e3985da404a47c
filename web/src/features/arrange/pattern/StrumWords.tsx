import { Button, Group, TextInput } from '@mantine/core'
import { countAt } from '@velvet-porch/core/music'
import type { PatternText } from '@velvet-porch/core/document'
import {
  readPattern,
  readStrum,
  stepTicks,
  type Placement,
  type StrumReading,
} from '@velvet-porch/core/arrange'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import css from './StrumWords.module.css'

/** A strum said in words: placed on the beats by the arm's rule, or asked about where that leaves a choice. */
export function StrumWords({
  metre,
  perBeat,
  onPlaced,
}: {
  metre: PatternText['metre']
  perBeat: number
  onPlaced: (pattern: PatternText) => void
}) {
  const { t } = useTranslation()
  const [words, setWords] = useState('')
  const [reading, setReading] = useState<StrumReading>()
  const place = () => {
    const found = readStrum(words, metre, perBeat)
    setReading(found)
    if (found.kind === 'placed') onPlaced(found.placement.pattern)
  }
  return (
    <div>
      <Group gap={6} align="flex-end" wrap="nowrap">
        <TextInput
          size="xs"
          flex={1}
          label={t('pattern.words')}
          placeholder={t('pattern.wordsHint')}
          value={words}
          onChange={(e) => {
            setWords(e.currentTarget.value)
            setReading(undefined)
          }}
          onKeyDown={(e) => e.key === 'Enter' && place()}
        />
        <Button size="xs" variant="default" onClick={place}>
          {t('pattern.place')}
        </Button>
      </Group>
      <div role="status" className={css['strum-answer']}>
        {reading ? <Answer reading={reading} metre={metre} perBeat={perBeat} onPlaced={onPlaced} /> : null}
      </div>
    </div>
  )
}

function Answer({
  reading,
  metre,
  perBeat,
  onPlaced,
}: {
  reading: StrumReading
  metre: PatternText['metre']
  perBeat: number
  onPlaced: (pattern: PatternText) => void
}) {
  const { t } = useTranslation()
  if (reading.kind === 'placed') return t('pattern.placed', { counts: countsOf(reading.placement) })
  if (reading.kind === 'ambiguous')
    return (
      <>
        {t('pattern.ambiguous')}
        <Choices choices={reading.choices} onPlaced={onPlaced} />
      </>
    )
  const metreText = `${metre.num}/${metre.den}`
  const { nearest } = reading
  return (
    <>
      {t(`pattern.unplaced.${reading.reason}`, { what: reading.what, metre: metreText, perBeat })}
      {nearest ? (
        <>
          {' '}
          {t('pattern.nearest', { perBeat: reading.perBeat ?? perBeat })}
          <Choices
            choices={nearest.kind === 'placed' ? [nearest.placement] : nearest.choices}
            onPlaced={onPlaced}
          />
        </>
      ) : null}
    </>
  )
}

function Choices({
  choices,
  onPlaced,
}: {
  choices: readonly Placement[]
  onPlaced: (pattern: PatternText) => void
}) {
  return (
    <Group gap={4} mt={4}>
      {choices.map((c) => (
        <Button key={c.pattern.text} size="compact-xs" variant="default" onClick={() => onPlaced(c.pattern)}>
          {countsOf(c)}
        </Button>
      ))}
    </Group>
  )
}

/** Where the strokes fall, as they are counted: "1, 2, 3 &, 4 &". */
function countsOf({ steps, pattern }: Placement): string {
  const read = readPattern(pattern)
  if (!read.ok) return ''
  const length = stepTicks(read.pattern)
  return steps
    .map((step) => {
      const count = countAt(pattern.metre, step * length) ?? ''
      const beat = Math.floor(step / pattern.perBeat) + 1
      return /^\d/.test(count) ? count : `${beat} ${count}`
    })
    .join(', ')
}
