import { Checkbox, NumberInput, Select } from '@mantine/core'
import type { TuneUnderstood } from '@velvet-porch/core/input/any'
import { FINEST, type MidiChoices } from '@velvet-porch/core/input/midi'
import { useTranslation } from 'react-i18next'
import css from './IntakeDialog.module.css'

/** Notes by the parts of a quarter that they take. */
const FINEST_NAMES = { 2: 'eighth', 4: 'sixteenth', 8: 'thirtySecond' } as const

interface Props {
  readonly voices: TuneUnderstood['voices']
  readonly quantised: TuneUnderstood['quantised']
  /** What was chosen: shown at once, while it is read anew. */
  readonly chosen: MidiChoices
  readonly onChoose: (change: MidiChoices) => void
}

/** What a score leaves open: which voice is the melody; and of a MIDI file, how what was played is written. */
export function ScoreQuestions({ voices, quantised, chosen, onChoose }: Props) {
  const { t } = useTranslation()
  const shown = quantised && { ...quantised, ...chosen }
  return (
    <div className={css.questions}>
      {voices && voices.offered.length > 1 ? (
        <Select
          size="xs"
          w={240}
          label={t('intake.melodyVoice')}
          allowDeselect={false}
          value={chosen.melody ?? voices.melody}
          data={voices.offered.map((v) => ({
            value: v.id,
            label: t('intake.voice', { name: v.name, notes: v.notes }),
          }))}
          onChange={(melody) => melody !== null && onChoose({ melody })}
        />
      ) : null}
      {quantised && shown ? (
        <>
          <Select
            size="xs"
            w={150}
            label={t('intake.finest')}
            allowDeselect={false}
            value={String(shown.finest)}
            data={FINEST.map((f) => ({ value: String(f), label: t(`intake.finestOf.${FINEST_NAMES[f]}`) }))}
            onChange={(value) => {
              const finest = FINEST.find((f) => String(f) === value)
              if (finest) onChoose({ finest })
            }}
          />
          <NumberInput
            size="xs"
            w={150}
            label={t('intake.pickup')}
            min={0}
            max={quantised.quarters - 0.5}
            step={0.5}
            decimalScale={1}
            value={shown.pickup}
            onChange={(value) => typeof value === 'number' && onChoose({ pickup: value })}
          />
          <Checkbox
            size="sm"
            label={
              quantised.tripletBeats > 0
                ? t('intake.triplets', { count: quantised.tripletBeats })
                : t('intake.noTriplets')
            }
            checked={shown.triplets}
            onChange={(e) => onChoose({ triplets: e.currentTarget.checked })}
          />
          {quantised.swing !== undefined || !shown.straighten ? (
            <Checkbox
              size="sm"
              label={t('intake.straighten')}
              checked={shown.straighten}
              onChange={(e) => onChoose({ straighten: e.currentTarget.checked })}
            />
          ) : null}
        </>
      ) : null}
    </div>
  )
}
