import { CloseButton } from '@mantine/core'
import { chordChange, type ChordReading, type Setup, type Shape } from '@velvet-porch/core'
import { useTranslation } from 'react-i18next'
import { useNames } from '../names/useNames.ts'
import { ChordBox } from './ChordBox.tsx'
import { Moves } from './Moves.tsx'

interface Held {
  readonly shape: Shape
  readonly chord: ChordReading
}

/** Two shapes side by side and the way from the first to the second. */
export function Compare({
  setup,
  from,
  to,
  onClose,
}: {
  setup: Setup
  from: Held
  to: Held
  onClose: () => void
}) {
  const { t } = useTranslation()
  const names = useNames()
  const fits = from.shape.frets.length === to.shape.frets.length
  return (
    <section className="compare" aria-label={t('shapes.compare')}>
      <div className="compare-head">
        <h3>{t('shapes.fromTo', { from: names.chord(from.chord), to: names.chord(to.chord) })}</h3>
        <CloseButton aria-label={t('shapes.compareClose')} onClick={onClose} />
      </div>
      {fits ? (
        <>
          <div className="compare-boxes">
            <ChordBox
              setup={setup}
              frets={from.shape.frets}
              fingers={from.shape.fingers}
              chord={from.chord}
            />
            <span aria-hidden>→</span>
            <ChordBox setup={setup} frets={to.shape.frets} fingers={to.shape.fingers} chord={to.chord} />
          </div>
          <Moves change={chordChange(setup, from.shape, to.shape)} />
        </>
      ) : (
        <p>{t('shapes.compareOther')}</p>
      )}
    </section>
  )
}
