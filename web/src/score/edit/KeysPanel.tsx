import { Button, Stack, Text } from '@mantine/core'
import { midiOf, spellInKey, type Key, type Midi, type Pitch } from '@velvet-porch/core/music'
import { useEffect, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import { BarPopover } from './BarPopover.tsx'
import { listenToKeys, offersMidi, type MidiKeys } from './midiKeys.ts'
import css from './KeysPanel.module.css'

/** Lowest key and number of keys of the keyboard on the screen. */
const LOWEST: Midi = 55
const KEYS = 25

/** Notes step by step from a MIDI keyboard, or from the one on the screen that stands in for it. */
export function KeysPanel({
  tuneKey,
  onPitch,
}: {
  /** The key in which notes are spelled. */
  tuneKey: Key
  onPitch: (pitch: Pitch) => void
}) {
  const { t } = useTranslation()
  return (
    <BarPopover label={t('write.keys.button')} stays>
      {() => <Keys tuneKey={tuneKey} onPitch={onPitch} />}
    </BarPopover>
  )
}

function Keys({ tuneKey, onPitch }: { tuneKey: Key; onPitch: (pitch: Pitch) => void }) {
  const { t } = useTranslation()
  const names = useNames()
  const take = useRef((_: Midi) => {})
  useEffect(() => {
    take.current = (note) => onPitch(spellInKey(note, tuneKey))
  })
  const [heard, setHeard] = useState<MidiKeys | 'refused'>()
  useEffect(() => () => (heard && heard !== 'refused' ? heard.close() : undefined), [heard])
  const listen = () => listenToKeys((note) => take.current(note)).then(setHeard, () => setHeard('refused'))
  const keys = Array.from({ length: KEYS }, (_, i) => spellInKey(LOWEST + i, tuneKey))
  return (
    <Stack gap={8} data-testid="keys">
      {!offersMidi() ? (
        <Text size="sm">{t('write.keys.notOffered')}</Text>
      ) : heard === 'refused' ? (
        <Text size="sm">{t('write.keys.refused')}</Text>
      ) : heard ? (
        <Text size="sm">
          {heard.names.length > 0
            ? t('write.keys.listening', { names: heard.names.join(', ') })
            : t('write.keys.none')}
        </Text>
      ) : (
        <Button size="compact-sm" variant="default" onClick={() => void listen()}>
          {t('write.keys.listen')}
        </Button>
      )}
      <div className={css.keyboard} role="group" aria-label={t('write.keys.screen')}>
        {keys.map((p) => {
          const name = names.note(p) + String(p.octave)
          return (
            <button
              key={midiOf(p)}
              type="button"
              className={isBlack(midiOf(p)) ? 'black' : undefined}
              aria-label={name}
              title={name}
              onClick={() => take.current(midiOf(p))}
            />
          )
        })}
      </div>
    </Stack>
  )
}

const isBlack = (note: Midi) => [1, 3, 6, 8, 10].includes(note % 12)
