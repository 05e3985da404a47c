import { Button, Popover, SegmentedControl, Stack, Text } from '@mantine/core'
import { isSongAlone, type TuneDoc } from '@velvet-porch/core/document'
import { highestCapo } from '@velvet-porch/core/instrument'
import { transposeChord, transposeKey } from '@velvet-porch/core/music'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { setPrefs, usePrefs } from '../../state/prefs.ts'
import { holds } from '../../ui/holds.ts'
import { useNames } from '../../ui/names/useNames.ts'
import { useBenchPage } from './bench/BenchContext.ts'
import { withCapo, type CapoKeeps } from './capoKeeps.ts'
import type { Settings } from './settings.ts'
import type { BenchArranger } from './useArranger.ts'
import css from './CapoTool.module.css'

interface Props {
  readonly tune: TuneDoc
  readonly settings: Settings
  readonly arranger: BenchArranger
}

/** The highest fret that is offered. */
const HIGHEST = 9

/**
 * The capo, and what stays when it moves: the shapes that the teacher calls out, or what sounds. Each says what it does with a
 * chord of this tune.
 */
export function CapoTool({ tune, settings, arranger }: Props) {
  const { t } = useTranslation()
  const names = useNames()
  const { capoKeeps } = usePrefs()
  const [opened, setOpened] = useState(false)
  const [looked, setLooked] = useState<number>()
  const { look } = useBenchPage()
  const song = isSongAlone(tune)
  const keeps = capoKeeps ?? (song ? 'shapes' : 'sound')
  const { capo, shift = 0 } = settings
  const highest = Math.min(HIGHEST, highestCapo(settings.instrument))
  const example = useExample(tune, settings)
  const to = looked ?? Math.min(capo + 2, highest)
  const moved = withCapo(settings, to, keeps)
  const chordAt = (up: number) => names.chord(transposeChord(example.chord, up, example.flats))
  const lookAt = (fret: number) => {
    setLooked(fret)
    look(fret === capo ? undefined : () => withCapo(settings, fret, keeps))
  }
  const open = (next: boolean) => {
    setOpened(next)
    if (!next) look(undefined)
  }
  const choose = (fret: number) => {
    open(false)
    const chosen = withCapo(settings, fret, keeps)
    void arranger.choose(
      t(keeps === 'shapes' ? 'arrange.command.capoShapes' : 'arrange.command.capo', { to: fret }),
      () => chosen,
    )
  }
  return (
    <Popover opened={opened} onChange={open} position="bottom-start" shadow="md" withinPortal trapFocus>
      <Popover.Target>
        <Button
          size="compact-xs"
          h={30}
          w={90}
          variant="default"
          aria-label={t('arrange.capoNow', { capo })}
          {...holds([t('arrange.capoKeeps.label')])}
          onClick={() => open(!opened)}
        >
          {capo === 0 ? t('arrange.noCapo') : t('arrange.capoAt', { capo })}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <Stack gap={8} w={300}>
          <SegmentedControl<CapoKeeps>
            size="xs"
            aria-label={t('arrange.capoKeeps.label')}
            value={keeps}
            onChange={(value) => setPrefs({ capoKeeps: value })}
            data={[
              { value: 'shapes', label: t('arrange.capoKeeps.shapes') },
              { value: 'sound', label: t('arrange.capoKeeps.sound') },
            ]}
          />
          <div className={css.frets} role="group" aria-label={t('arrange.capo')}>
            {Array.from({ length: highest + 1 }, (_, fret) => (
              <button
                key={fret}
                type="button"
                className={css.fret}
                aria-pressed={fret === capo}
                aria-label={fret === 0 ? t('arrange.noCapo') : t('arrange.capoAt', { capo: fret })}
                onPointerEnter={() => lookAt(fret)}
                onFocus={() => lookAt(fret)}
                onClick={() => choose(fret)}
              >
                {fret}
              </button>
            ))}
          </div>
          <Text size="sm" data-testid="capo-example">
            {keeps === 'shapes'
              ? t('arrange.capoKeeps.saysShapes', {
                  capo: to,
                  shape: chordAt(shift - capo),
                  sound: chordAt(moved.shift ?? 0),
                  key: names.key(transposeKey(example.key, moved.shift ?? 0)),
                })
              : t('arrange.capoKeeps.saysSound', {
                  capo: to,
                  sound: chordAt(shift),
                  from: chordAt(shift - capo),
                  shape: chordAt(shift - to),
                })}
          </Text>
        </Stack>
      </Popover.Dropdown>
    </Popover>
  )
}

/** The chord of the tune by which a capo is explained: its first, else that of its key. */
function useExample(tune: TuneDoc, { shift = 0 }: Settings) {
  const { key } = tune.measures[0]!
  const first = tune.chords.find((c) => c.parsed)?.parsed
  const chord = first ?? {
    root: key.tonic,
    quality: key.mode === 'minor' ? 'm' : '',
    intervals: key.mode === 'minor' ? [0, 3, 7] : [0, 4, 7],
  }
  return { key, chord, flats: transposeKey(key, shift).fifths < 0 }
}
