import { NumberInput, SegmentedControl, Text } from '@mantine/core'
import type { TuneDoc } from '@velvet-porch/core/document'
import type { TuneUnderstood } from '@velvet-porch/core/input/any'
import type { CapoMeaning, SongChoices } from '@velvet-porch/core/input/song'
import { mod12, pitchClass, transposeChord } from '@velvet-porch/core/music'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import css from './IntakeDialog.module.css'

interface Props {
  readonly tune: TuneDoc
  readonly song: TuneUnderstood['song']
  readonly capoNames: TuneUnderstood['capoNames']
  readonly onChoose: (change: SongChoices) => void
}

/** Notes that players call by their flats: E flat, A flat, B flat. Common practice, no source. */
const FLATS = [3, 8, 10]

/** What a text leaves open: whether chord names behind a capo are shapes or what sounds, and how many bars a line of words takes. */
export function SongQuestions({ tune, song, capoNames, onChoose }: Props) {
  const { t } = useTranslation()
  const names = useNames()
  const { capo = 0, meaning = 'shapes' } = capoNames ?? {}
  const first = tune.chords.find((c) => c.parsed)?.parsed
  // The name as the text has it: what sounds, less the capo where names are shapes.
  const written = first && meaning === 'shapes' ? transposeChord(first, -capo, false) : first
  const name = (by: number) => {
    if (!written) return ''
    const flat = FLATS.includes(mod12(pitchClass(written.root) + by))
    return names.chord(transposeChord(written, by, flat))
  }
  return (
    <div className={css.questions}>
      {capo > 0 && written ? (
        <div>
          <Text size="sm" fw={500} id="capo-meaning">
            {t('intake.capoAsk', { capo, chord: name(0) })}
          </Text>
          <SegmentedControl<CapoMeaning>
            size="xs"
            orientation="vertical"
            aria-labelledby="capo-meaning"
            value={meaning}
            onChange={(value) => onChoose({ meaning: value })}
            data={[
              { value: 'shapes', label: t('intake.shapes', { chord: name(0), sound: name(capo) }) },
              { value: 'sound', label: t('intake.sound', { chord: name(0), shape: name(-capo) }) },
            ]}
          />
        </div>
      ) : null}
      {song?.guessed ? (
        <NumberInput
          size="xs"
          w={150}
          label={t('intake.bars')}
          min={1}
          max={16}
          value={song.bars}
          onChange={(value) => Number(value) > 0 && onChoose({ bars: Number(value) })}
        />
      ) : null}
    </div>
  )
}
