import { Button, Group, Modal, TextInput } from '@mantine/core'
import { readFigureChords } from '@velvet-porch/core/edit'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import type { MarkedMeasures } from '../sheet/selection.ts'
import type { Writing } from './useWriting.ts'

interface Props {
  readonly range: MarkedMeasures
  /** The measures in words. */
  readonly name: string
  readonly run: Writing['run']
  readonly onClose: () => void
}

/** Asks on which chords the figure of some measures is to be played again, and writes it behind them. */
export function FigureDialog({ range, name, run, onClose }: Props) {
  const { t } = useTranslation()
  const names = useNames()
  const [text, setText] = useState('')
  const chords = text.replace(/[^\s,|]+/g, names.letters)
  const read = readFigureChords(chords)
  const bars = read.ok ? read.measures : []
  const write = async () => {
    if (bars.length > 0) await run({ do: 'figure', ...range, chords })
    onClose()
  }
  return (
    <Modal opened onClose={onClose} title={t('write.figure.title', { name })}>
      <form
        onSubmit={(e) => {
          e.preventDefault()
          if (bars.length > 0) void write()
        }}
      >
        <TextInput
          data-autofocus
          label={t('write.figure.chords')}
          description={t('write.figure.how')}
          placeholder={t('write.figure.example')}
          value={text}
          error={read.ok ? undefined : t('write.figure.noChord', { word: read.word })}
          onChange={(e) => setText(e.currentTarget.value)}
        />
        <Group mt="md" justify="space-between">
          <span role="status">
            {bars.length > 0
              ? t('write.figure.measures', {
                  count: bars.length,
                  chords: bars.map((b) => b.map((c) => names.chord(c)).join(' ')).join(' | '),
                })
              : ''}
          </span>
          <Button type="submit" disabled={bars.length === 0}>
            {t('write.figure.write')}
          </Button>
        </Group>
      </form>
    </Modal>
  )
}
