import { ActionIcon, Button, FileButton, Group, Slider, Text } from '@mantine/core'
import { IconPlayerPauseFilled, IconPlayerPlayFilled, IconX } from '@tabler/icons-react'
import { useTranslation } from 'react-i18next'
import type { SheetModel } from '../../score/sheet/sheetModel.ts'
import { SPEEDS, type Recording } from './useRecording.ts'
import css from './practise.module.css'

/** A recording of one's own: how fast, where its measures begin, kept or not. */
export function RecordingPanel({ recording, model }: { recording: Recording; model: SheetModel }) {
  const { t } = useTranslation()
  const { name, speed, setSpeed, playing, seconds, failed, marks, isKept } = recording
  const { order } = model.unfolded
  const next = order[(marks.at(-1)?.played ?? -1) + 1]
  const numberOf = (played: number) => model.numbers[order[played]?.measure ?? 0] ?? 0
  const choose = (
    <FileButton
      accept="audio/*"
      onChange={(file) => {
        if (file) recording.open(file)
      }}
      inputProps={{ 'aria-label': t('practise.recording.open') }}
    >
      {(props) => (
        <Button {...props} size="compact-sm" variant="default">
          {t('practise.recording.open')}
        </Button>
      )}
    </FileButton>
  )
  return (
    <details className={css['practise-recording']} data-testid="recording">
      <summary>{t('practise.recording.title')}</summary>
      {name === undefined ? (
        <>
          <Text size="sm">{t('practise.recording.hint')}</Text>
          {choose}
        </>
      ) : (
        <>
          <Text size="sm" fw={600}>
            {name}
          </Text>
          {failed ? <p role="alert">{t('practise.recording.failed')}</p> : null}
          <Group gap="xs">
            <Button
              size="compact-sm"
              leftSection={playing ? <IconPlayerPauseFilled size={15} /> : <IconPlayerPlayFilled size={15} />}
              onClick={recording.toggle}
            >
              {t(playing ? 'practise.recording.pause' : 'practise.recording.play')}
            </Button>
            <Text size="sm" data-testid="recording-time">
              {t('practise.recording.at', { seconds: seconds.toFixed(1) })}
            </Text>
          </Group>
          <Text size="sm" id="recording-speed" mt={6}>
            {t('practise.recording.speed', { percent: Math.round(speed * 100) })}
          </Text>
          <Slider
            thumbProps={{ 'aria-labelledby': 'recording-speed' }}
            min={SPEEDS.least * 100}
            max={SPEEDS.most * 100}
            step={5}
            value={Math.round(speed * 100)}
            onChange={(value) => setSpeed(value / 100)}
            label={null}
          />
          {next ? (
            <Button size="compact-sm" variant="default" mt={8} onClick={() => recording.mark()}>
              {t('practise.recording.mark', { number: model.numbers[next.measure] ?? 0 })}
            </Button>
          ) : null}
          {marks.length < 2 ? <Text size="xs">{t('practise.recording.markHint')}</Text> : null}
          <ol className={css['practise-marks']} data-testid="marks">
            {marks.map((m) => (
              <li key={m.played}>
                {t('practise.recording.marked', {
                  number: numberOf(m.played),
                  seconds: m.seconds.toFixed(2),
                })}
                <ActionIcon
                  size="sm"
                  variant="subtle"
                  aria-label={t('practise.recording.unmark', { number: numberOf(m.played) })}
                  onClick={() => recording.unmark(m.played)}
                >
                  <IconX size={13} />
                </ActionIcon>
              </li>
            ))}
          </ol>
          <Group gap="xs">
            {choose}
            {isKept ? (
              <Button size="compact-sm" variant="subtle" color="red" onClick={() => void recording.forget()}>
                {t('practise.recording.forget')}
              </Button>
            ) : (
              <Button size="compact-sm" variant="default" onClick={() => void recording.keep()}>
                {t('practise.recording.keep')}
              </Button>
            )}
          </Group>
          <Text size="xs" c="dimmed">
            {t(isKept ? 'practise.recording.isKept' : 'practise.recording.notKept')}
          </Text>
        </>
      )}
    </details>
  )
}
