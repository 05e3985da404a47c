import { Alert, Button, Chip, Group, Progress, SegmentedControl, Text } from '@mantine/core'
import { IconMicrophone, IconPlayerStopFilled } from '@tabler/icons-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { SheetModel } from '../../../score/sheet/sheetModel.ts'
import { TakeHeard } from './TakeHeard.tsx'
import { SLIPS, useTake, type Slip, type TakePlayer } from './useTake.ts'
import css from './take.module.css'

/** Checks a take of the piece at hand: an aid that says what was heard, never a grade. */
export function TakePanel({ model, onClean }: { model: SheetModel; onClean: () => void }) {
  const { t } = useTranslation()
  const [by, setBy] = useState<TakePlayer>('microphone')
  const [slips, setSlips] = useState<readonly Slip[]>(['fret', 'missed'])
  const take = useTake(by, slips, model.setup)
  const { state, delay } = take
  const busy =
    state.kind !== 'idle' && state.kind !== 'fault' && state.kind !== 'noDelay' && state.kind !== 'heard'
  const isRecording = state.kind === 'countingIn' || state.kind === 'recording'
  return (
    <details className={css['take']} data-testid="take">
      <summary>{t('practise.take.title')}</summary>
      <Text size="sm">{t('practise.take.aid')}</Text>
      <SegmentedControl
        size="xs"
        my="xs"
        aria-label={t('practise.take.by')}
        disabled={busy}
        data={(['microphone', 'simulated'] as const).map((value) => ({
          value,
          label: t(`practise.take.${value}`),
        }))}
        value={by}
        onChange={(value) => {
          setBy(value)
          take.forget()
        }}
      />
      {by === 'simulated' ? (
        <Chip.Group multiple value={[...slips]} onChange={(value) => setSlips(value)}>
          <Group gap={6} mb="xs" role="group" aria-label={t('practise.take.slips')}>
            {SLIPS.map((slip) => (
              <Chip key={slip} size="xs" value={slip}>
                {t(`practise.take.slip.${slip}`)}
              </Chip>
            ))}
          </Group>
        </Chip.Group>
      ) : null}
      <Group gap="xs">
        <Button size="compact-sm" variant="default" disabled={busy} onClick={() => void take.measureDelay()}>
          {t(delay === undefined ? 'practise.take.measure' : 'practise.take.measureAgain')}
        </Button>
        <Text size="sm" data-testid="take-delay">
          {delay === undefined ? t('practise.take.delayUnknown') : t('practise.take.delay', { ms: delay })}
        </Text>
      </Group>
      {delay === undefined ? <Text size="xs">{t('practise.take.measureHow')}</Text> : null}
      <Group gap="xs" mt="xs">
        {isRecording ? (
          <Button
            size="compact-md"
            color="red"
            leftSection={<IconPlayerStopFilled size={16} />}
            onClick={take.stop}
          >
            {t('practise.take.stop')}
          </Button>
        ) : (
          <Button
            size="compact-md"
            leftSection={<IconMicrophone size={16} />}
            disabled={busy || delay === undefined}
            onClick={() => void take.start()}
          >
            {t('practise.take.start')}
          </Button>
        )}
        <Text size="sm" role="status" data-testid="take-state">
          {busy && state.kind !== 'listening' ? t(`practise.take.state.${state.kind}`) : ''}
        </Text>
      </Group>
      {state.kind === 'listening' ? (
        <Progress mt="xs" value={100 * state.share} aria-label={t('practise.take.state.listening')} />
      ) : null}
      {state.kind === 'fault' ? (
        <Alert color="red" mt="xs">
          {t(state.fault === 'broken' ? 'practise.take.broken' : `tuner.fault.${state.fault}`)}
        </Alert>
      ) : null}
      {state.kind === 'noDelay' ? (
        <Alert color="yellow" mt="xs">
          {t('practise.take.noDelay')}
        </Alert>
      ) : null}
      {state.kind === 'heard' ? (
        <TakeHeard reading={state.reading} expected={state.expected} model={model} onClean={onClean} />
      ) : null}
    </details>
  )
}
