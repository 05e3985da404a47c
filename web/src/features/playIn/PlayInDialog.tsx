import {
  Alert,
  Button,
  Group,
  Modal,
  NumberInput,
  Progress,
  SegmentedControl,
  Select,
  Stack,
  Text,
  TextInput,
} from '@mantine/core'
import { IconMicrophone, IconPlayerStopFilled } from '@tabler/icons-react'
import type { Score } from '@velvet-porch/core/document'
import { DEFAULT_PLAYER, namedTunings, setupOf, type InstrumentKind } from '@velvet-porch/core/instrument'
import { QUARTER } from '@velvet-porch/core/music'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { newId } from '../../newId.ts'
import { PlayedDraft } from './PlayedDraft.tsx'
import { GRIDS, METRES, type GridName } from './playedIn.ts'
import { usePlayIn } from './usePlayIn.ts'

/** Who sounds the melody: a voice has no strings. */
const SOUNDED_BY = ['guitar', 'mandolin', 'voice'] as const
type SoundedBy = (typeof SOUNDED_BY)[number]

const TEMPO = { least: 30, most: 200 }

/** A melody played, sung or hummed to clicks becomes the draft of a tune. */
export function PlayInDialog({
  onClose,
  onTake,
}: {
  onClose: () => void
  onTake: (score: Score) => Promise<void>
}) {
  const { t } = useTranslation()
  const [title, setTitle] = useState('')
  const [bpm, setBpm] = useState<string | number>(72)
  const [metre, setMetre] = useState('4/4')
  const [grid, setGrid] = useState<GridName>('eighth')
  const [soundedBy, setSoundedBy] = useState<SoundedBy>('guitar')
  const [by, setBy] = useState<'microphone' | 'simulated'>('microphone')
  const [taking, setTaking] = useState(false)
  const { state, start, stop } = usePlayIn()
  const beats = Number(bpm)
  const isTempo = beats >= TEMPO.least && beats <= TEMPO.most
  // In a metre of dotted beats the tempo is that of the beat.
  const quarters = metre === '6/8' ? 1.5 * beats : beats
  const isRecording = state.kind === 'countingIn' || state.kind === 'recording'
  const busy = isRecording || state.kind === 'asking' || state.kind === 'listening'
  const begin = () =>
    start({
      by,
      on: { bpm: quarters, grid: GRIDS[grid] },
      draft: {
        id: newId(),
        title: title.trim() || t('playIn.untitled'),
        bpm: quarters,
        metre: METRES[metre]!,
        ...(soundedBy === 'voice' ? {} : { setup: usualSetup(soundedBy) }),
      },
    })
  return (
    <Modal
      opened
      onClose={onClose}
      title={t('playIn.title')}
      size="lg"
      closeButtonProps={{ 'aria-label': t('shelf.cancel') }}
    >
      <Stack gap="sm">
        <Text size="sm">{t('playIn.intro')}</Text>
        <Group grow align="start">
          <TextInput
            label={t('playIn.name')}
            placeholder={t('playIn.untitled')}
            maxLength={120}
            value={title}
            onChange={(e) => setTitle(e.currentTarget.value)}
          />
          <Select
            label={t('playIn.soundedBy')}
            allowDeselect={false}
            value={soundedBy}
            data={SOUNDED_BY.map((value) => ({ value, label: t(`playIn.by.${value}`) }))}
            onChange={(value) => setSoundedBy(SOUNDED_BY.find((s) => s === value) ?? 'guitar')}
          />
        </Group>
        <Group grow align="start">
          <NumberInput
            label={t('playIn.tempo')}
            min={TEMPO.least}
            max={TEMPO.most}
            value={bpm}
            onChange={setBpm}
            error={isTempo ? undefined : t('playIn.tempoFault', { from: TEMPO.least, to: TEMPO.most })}
          />
          <Select
            label={t('playIn.metre')}
            allowDeselect={false}
            value={metre}
            data={Object.keys(METRES)}
            onChange={(value) => value !== null && setMetre(value)}
          />
          <Select
            label={t('playIn.grid')}
            allowDeselect={false}
            value={grid}
            data={(Object.keys(GRIDS) as GridName[])
              .filter((g) => metre !== '6/8' || GRIDS[g] <= QUARTER / 2)
              .filter((g) => metre !== '6/8' || g !== 'third')
              .map((value) => ({ value, label: t(`playIn.grids.${value}`) }))}
            onChange={(value) => setGrid(value ?? 'eighth')}
          />
        </Group>
        <SegmentedControl
          aria-label={t('tuner.from')}
          disabled={busy}
          data={(['microphone', 'simulated'] as const).map((value) => ({
            value,
            label: t(`tuner.${value}`),
          }))}
          value={by}
          onChange={setBy}
        />
        <Group gap="sm">
          {isRecording ? (
            <Button color="red" leftSection={<IconPlayerStopFilled size={16} />} onClick={stop}>
              {t('playIn.stop')}
            </Button>
          ) : (
            <Button
              variant={state.kind === 'heard' ? 'default' : 'filled'}
              leftSection={<IconMicrophone size={16} />}
              disabled={busy || !isTempo}
              onClick={() => void begin()}
            >
              {t(state.kind === 'heard' ? 'playIn.again' : 'playIn.start')}
            </Button>
          )}
          <Text size="sm" role="status" data-testid="play-in-state">
            {state.kind === 'recording'
              ? t('playIn.recording', { number: state.measure })
              : state.kind === 'asking' || state.kind === 'countingIn' || state.kind === 'nothing'
                ? t(`playIn.state.${state.kind}`)
                : ''}
          </Text>
        </Group>
        {state.kind === 'listening' ? (
          <Progress value={100 * state.share} aria-label={t('playIn.state.listening')} />
        ) : null}
        {state.kind === 'fault' ? (
          <Alert color="red">
            {t(state.fault === 'broken' ? 'practise.take.broken' : `tuner.fault.${state.fault}`)}
          </Alert>
        ) : null}
        {state.kind === 'heard' ? <PlayedDraft played={state.played} score={state.score} /> : null}
        <Text size="xs" c="dimmed">
          {t('playIn.private')}
        </Text>
        <Group justify="flex-end">
          <Button variant="default" onClick={onClose}>
            {t('shelf.cancel')}
          </Button>
          <Button
            disabled={state.kind !== 'heard'}
            loading={taking}
            onClick={async () => {
              if (state.kind !== 'heard') return
              setTaking(true)
              await onTake(state.score)
            }}
          >
            {t('playIn.take')}
          </Button>
        </Group>
      </Stack>
    </Modal>
  )
}

const usualSetup = (kind: InstrumentKind) =>
  setupOf(kind, namedTunings(kind)[0]!.tuning, { fret: 0 }, DEFAULT_PLAYER)
