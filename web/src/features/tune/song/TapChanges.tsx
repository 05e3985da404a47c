import { ActionIcon, Button, Group, Popover, Stack, Text } from '@mantine/core'
import { IconHandFinger } from '@tabler/icons-react'
import { QUARTER } from '@velvet-porch/core/music'
import type { ChordMark, LineBars } from '@velvet-porch/core/document'
import { quantised } from '@velvet-porch/core/edit'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { TapPad } from '../../../score/edit/TapPad.tsx'
import { TapTempo } from '../../../score/edit/TapTempo.tsx'
import { useClicks } from '../../../score/edit/useClicks.ts'
import type { Writing } from '../../../score/edit/useWriting.ts'

interface Props {
  readonly line: LineBars
  readonly name: (chord: ChordMark) => string
  readonly tempo: number
  readonly run: Writing['run']
}

/** The changes of a line tapped against clicks: a tap for each chord, and one where the line ends. */
export function TapChanges(props: Props) {
  const { t } = useTranslation()
  const [opened, setOpened] = useState(false)
  return (
    <Popover opened={opened} onChange={setOpened} withinPortal trapFocus position="bottom-end" shadow="md">
      <Popover.Target>
        <ActionIcon
          variant="subtle"
          color="gray"
          size="sm"
          aria-label={t('song.tap', { line: props.line.line.text || t('song.played') })}
          onClick={() => setOpened((o) => !o)}
        >
          <IconHandFinger size={15} />
        </ActionIcon>
      </Popover.Target>
      <Popover.Dropdown>
        {opened ? <Tapping {...props} onDone={() => setOpened(false)} /> : null}
      </Popover.Dropdown>
    </Popover>
  )
}

function Tapping({
  line: { line, beats, changes },
  name,
  tempo,
  run,
  onDone,
}: Props & { onDone: () => void }) {
  const { t } = useTranslation()
  const [bpm, setBpm] = useState(Math.round(tempo))
  const [clicking, setClicking] = useState(false)
  const [taps, setTaps] = useState<readonly number[]>([])
  useClicks(clicking, bpm)
  const wanted = changes.length + 1
  const tap = (seconds: number) => setTaps((now) => [...now, seconds].slice(0, wanted))
  const write = async () => {
    // A tap is a beat: the length of a quarter stands for it, whatever the metre counts.
    const { lengths } = quantised(taps, bpm, { grid: QUARTER })
    const starts = lengths.map((_, i) => lengths.slice(0, i).reduce((sum, l) => sum + l / QUARTER, 0))
    const whole = lengths.reduce((sum, l) => sum + l / QUARTER, 0)
    const done = await run({
      do: 'lineTimes',
      line: line.id,
      bars: Math.max(1, Math.round(whole / beats), Math.floor((starts.at(-1) ?? 0) / beats) + 1),
      changes: starts.map((at) => ({ bar: Math.floor(at / beats), share: (at % beats) / beats })),
    })
    if (done) onDone()
  }
  const next = changes[taps.length]
  return (
    <Stack gap={8} w={280} data-testid="tap-changes">
      <Text size="sm">{t('song.tapHint')}</Text>
      <Group gap={8} align="end">
        <TapTempo label={t('song.beats')} bpm={bpm} onBpm={setBpm} />
        <Button size="compact-sm" variant="default" onClick={() => setClicking(!clicking)}>
          {t(clicking ? 'song.clicksOff' : 'song.clicksOn')}
        </Button>
      </Group>
      <TapPad onTap={tap}>
        {taps.length >= wanted ? t('song.tapDone') : next ? name(next.chord) : t('song.tapEnd')}
      </TapPad>
      <Group gap={8}>
        <Button size="compact-sm" disabled={taps.length < wanted} onClick={() => void write()}>
          {t('song.tapWrite')}
        </Button>
        <Button size="compact-sm" variant="default" disabled={taps.length === 0} onClick={() => setTaps([])}>
          {t('song.tapAgain')}
        </Button>
      </Group>
    </Stack>
  )
}
