import { fretsText } from '@velvet-porch/core/chords'
import { CloseButton } from '@mantine/core'
import type { TuneDoc } from '@velvet-porch/core/document'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import { unpinShape } from '../../state/pinShape.ts'
import css from './Pins.module.css'

/** The shapes that the teacher pinned to this tune; each can be taken off. */
export function Pins({ tune }: { tune: TuneDoc }) {
  const { t } = useTranslation()
  const names = useNames()
  return (
    <div className={css.pins} data-testid="pins">
      {t('arrange.pins')}
      {(tune.pins ?? []).map((pin) => (
        <span key={pin.id}>
          <b>{names.shape(pin.chord)}</b> {fretsText(pin.frets)}
          <CloseButton
            size="xs"
            aria-label={t('arrange.unpin', { chord: names.shape(pin.chord) })}
            onClick={() => void unpinShape(tune.id, pin.id, t('arrange.unpinned', { chord: pin.chord }))}
          />
        </span>
      ))}
    </div>
  )
}
