import {
  Alert,
  Button,
  Checkbox,
  Group,
  Modal,
  Progress,
  SegmentedControl,
  Select,
  Stack,
  Text,
} from '@mantine/core'
import { LEVELS, SOLO_STYLES, type Level, type SoloStyle } from '@velvet-porch/core/document'
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { ShelfRow } from '../../../state/db.ts'
import { download } from '../../../ui/saveAs.ts'
import { saveMany, type ManyDone, type ManyProgress } from './saveMany.ts'

/** What many tunes are saved as. */
const OFFERED = ['musicxml', 'text', 'midi', 'abc', 'svg', 'tune-file'] as const

const INSTRUMENTS = ['guitar', 'mandolin'] as const
type ManyInstrument = (typeof INSTRUMENTS)[number]

interface Props {
  readonly rows: readonly ShelfRow[]
  readonly onClose: () => void
}

/** All tunes that are listed: those without a tab are arranged, and all are saved in one file; with progress, and stopped at any time. */
export function SaveManyDialog({ rows, onClose }: Props) {
  const { t } = useTranslation()
  const [formats, setFormats] = useState<readonly string[]>(['musicxml', 'text'])
  const [style, setStyle] = useState<SoloStyle>('melody-bass')
  const [instrument, setInstrument] = useState<ManyInstrument>('guitar')
  const [level, setLevel] = useState<Level>(3)
  const [progress, setProgress] = useState<ManyProgress>()
  const [done, setDone] = useState<ManyDone | 'stopped'>()
  const running = useRef<AbortController>(null)
  useEffect(() => () => running.current?.abort(), [])
  const start = async () => {
    const control = new AbortController()
    running.current = control
    setDone(undefined)
    setProgress({ done: 0, title: '', failed: [] })
    const ids = rows.map((r) => r.id)
    const result = await saveMany({ ids, formats, instrument, style, level }, setProgress, control.signal)
    setProgress(undefined)
    setDone(result ?? 'stopped')
    if (result?.zip)
      download(
        `velvet-porch tabs ${new Date().toISOString().slice(0, 10)}.zip`,
        new Blob([result.zip], { type: 'application/zip' }),
      )
  }
  return (
    <Modal
      opened
      onClose={onClose}
      title={t('many.title', { count: rows.length })}
      closeButtonProps={{ 'aria-label': t('shelf.cancel') }}
    >
      <Stack gap="sm" data-testid="many">
        <Text size="sm">{t('many.hint')}</Text>
        <Checkbox.Group
          label={t('many.formats')}
          value={[...formats]}
          onChange={(value) => setFormats(value)}
        >
          <Stack gap={6} mt={6}>
            {OFFERED.map((f) => (
              <Checkbox key={f} value={f} label={t(`arrange.export.of.${f}`)} />
            ))}
          </Stack>
        </Checkbox.Group>
        <SegmentedControl
          aria-label={t('many.instrument')}
          value={instrument}
          data={INSTRUMENTS.map((k) => ({ value: k, label: t(`instrument.kinds.${k}`) }))}
          onChange={(value) => setInstrument(value)}
        />
        <Select
          label={t('many.style')}
          allowDeselect={false}
          value={style}
          data={SOLO_STYLES.map((s) => ({ value: s, label: t(`arrange.styles.${s}`) }))}
          onChange={(value) => {
            const chosen = SOLO_STYLES.find((s) => s === value)
            if (chosen) setStyle(chosen)
          }}
        />
        <SegmentedControl
          aria-label={t('many.level')}
          value={String(level)}
          data={LEVELS.map((l) => ({ value: String(l), label: t('many.ofLevel', { level: l }) }))}
          onChange={(value) => {
            const chosen = LEVELS.find((l) => String(l) === value)
            if (chosen) setLevel(chosen)
          }}
        />
        {progress ? (
          <>
            <Progress
              value={(100 * progress.done) / rows.length}
              aria-label={t('many.progress', { done: progress.done, all: rows.length })}
            />
            <Text size="sm">
              {t('many.progress', { done: progress.done, all: rows.length })} {progress.title}
            </Text>
          </>
        ) : null}
        {done === 'stopped' ? <Alert role="status">{t('many.stopped')}</Alert> : null}
        {done && done !== 'stopped' ? (
          <Alert
            role="status"
            color={done.failed.length > 0 ? 'red' : 'plum'}
            style={{ whiteSpace: 'pre-line' }}
          >
            {[t('many.done', { count: done.arranged }), ...done.failed].join('\n')}
          </Alert>
        ) : null}
        <Group justify="flex-end">
          {progress ? (
            <Button variant="default" onClick={() => running.current?.abort()}>
              {t('many.stop')}
            </Button>
          ) : null}
          <Button loading={progress !== undefined} onClick={() => void start()}>
            {t('many.start', { count: rows.length })}
          </Button>
        </Group>
      </Stack>
    </Modal>
  )
}
