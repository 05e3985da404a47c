import type { TFunction } from 'i18next'
import { Button, FileButton, Group, Progress, Text } from '@mantine/core'
import { IconWaveSawTool, IconX } from '@tabler/icons-react'
import { pitchClass, type Key } from '@velvet-porch/core/music'
import type { TuneDoc } from '@velvet-porch/core/document'
import { nearestShift } from '@velvet-porch/core/arrange'
import type { RecordingReading } from '@velvet-porch/core/input/audio'
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import { listenInWorker } from '../../workers/fitWorkers.ts'
import { errorWords } from '../../workers/errorWords.ts'
import css from './RecordingPitchPanel.module.css'

/** Samples a second at which recordings are looked at. */
const RATE = 22_050

type Looked =
  | { readonly state: 'busy'; readonly name: string; readonly share: number }
  | { readonly state: 'read'; readonly name: string; readonly reading: RecordingReading }
  | { readonly state: 'undecodable'; readonly name: string }
  | { readonly state: 'lost'; readonly reason: string }

/** Semitones from the tune's key to another, within half an octave; a minor key of a major tune by its relative. */
export function shiftTo(tune: TuneDoc, key: Key): number {
  const own = tune.measures[0]!.key
  const relative = own.mode === key.mode ? 0 : key.mode === 'minor' ? 3 : -3
  return nearestShift(pitchClass(key.tonic) + relative - pitchClass(own.tonic))
}

/** Looks at an audio file of the teacher's own: how far it is off concert pitch, and its likely keys. Nothing is kept. */
export function RecordingPitchPanel({
  tune,
  onWanted,
}: {
  tune: TuneDoc
  onWanted: (shift: number) => void
}) {
  const { t } = useTranslation()
  const names = useNames()
  const [looked, setLooked] = useState<Looked>()
  const cancel = useRef<(() => void) | undefined>(undefined)
  useEffect(() => () => cancel.current?.(), [])
  const look = async (file: File | null) => {
    if (!file) return
    cancel.current?.()
    const { name } = file
    setLooked({ state: 'busy', name, share: 0 })
    let samples: Float32Array
    try {
      const audio = await new OfflineAudioContext(1, 1, RATE).decodeAudioData(await file.arrayBuffer())
      samples = mono(audio)
    } catch {
      return setLooked({ state: 'undecodable', name })
    }
    const run = listenInWorker(samples, RATE, (share) => setLooked({ state: 'busy', name, share }))
    cancel.current = run.cancel
    try {
      setLooked({ state: 'read', name, reading: await run.reading })
    } catch (error) {
      setLooked({ state: 'lost', reason: errorWords(t, error) })
    }
  }
  return (
    <div className={css['fit-recording']} data-testid="recording">
      <Group gap={6}>
        <FileButton onChange={(f) => void look(f)} accept="audio/*">
          {(props) => (
            <Button
              {...props}
              size="compact-xs"
              variant="default"
              leftSection={<IconWaveSawTool size={14} />}
            >
              {t('fit.recording.open')}
            </Button>
          )}
        </FileButton>
        {looked?.state === 'busy' ? (
          <Button
            size="compact-xs"
            variant="subtle"
            leftSection={<IconX size={12} />}
            onClick={() => {
              cancel.current?.()
              setLooked(undefined)
            }}
          >
            {t('fit.stop')}
          </Button>
        ) : null}
      </Group>
      {looked?.state === 'busy' ? (
        <Progress mt={6} size="sm" value={100 * looked.share} aria-label={t('fit.recording.busy')} />
      ) : null}
      <div role="status">
        {looked?.state === 'undecodable' ? (
          <Text size="xs" c="var(--rust)">
            {t('fit.recording.undecodable', { name: looked.name })}
          </Text>
        ) : null}
        {looked?.state === 'lost' ? (
          <Text size="xs" c="var(--rust)">
            {looked.reason}
          </Text>
        ) : null}
        {looked?.state === 'read' && !looked.reading.ok ? (
          <Text size="xs" c="var(--rust)">
            {t(`fit.recording.fault.${looked.reading.fault}`, { name: looked.name })}
          </Text>
        ) : null}
        {looked?.state === 'read' && looked.reading.ok ? (
          <>
            <Text size="xs">{centsWords(t, looked.reading.cents)}</Text>
            <Text size="xs">{t('fit.recording.keys')}</Text>
            <Group gap={4}>
              {looked.reading.keys.map(({ key }) => (
                <Button
                  key={names.key(key)}
                  size="compact-xs"
                  variant="default"
                  onClick={() => onWanted(shiftTo(tune, key))}
                >
                  {names.key(key)}
                </Button>
              ))}
            </Group>
          </>
        ) : null}
      </div>
      <Text size="xs" c="dimmed">
        {t('fit.recording.private')}
      </Text>
    </div>
  )
}

function centsWords(t: TFunction, cents: number): string {
  const n = Math.abs(cents)
  if (n < 1) return t('fit.recording.atPitch')
  const values = { cents: n.toFixed(0) }
  return cents > 0 ? t('fit.recording.sharp', values) : t('fit.recording.flat', values)
}

function mono(audio: AudioBuffer): Float32Array {
  const out = new Float32Array(audio.length)
  for (let c = 0; c < audio.numberOfChannels; c++) {
    const channel = audio.getChannelData(c)
    for (let i = 0; i < out.length; i++) out[i]! += channel[i]! / audio.numberOfChannels
  }
  return out
}
