import { CloseButton } from '@mantine/core'
import type { ChordReading } from '@velvet-porch/core/music'
import type { Setup } from '@velvet-porch/core/instrument'
import { fingeringsOf } from '@velvet-porch/core/hand'
import { bestPair, chordChange, type FingeredGrip, type Shape } from '@velvet-porch/core/chords'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import { ChordBox } from '../../ui/chordBox/ChordBox.tsx'
import { Moves } from './Moves.tsx'
import css from './Compare.module.css'

interface Held {
  readonly shape: Shape
  readonly chord: ChordReading
}

/** The likeliest fingerings of a shape. */
const everyWay = (setup: Setup, shape: Shape): FingeredGrip[] =>
  fingeringsOf(setup, shape.frets, setup.player, 3).map(({ fingers }) => ({ frets: shape.frets, fingers }))

/** Fingers from the lowest string, as they are spoken. */
const digits = (grip: FingeredGrip): string =>
  [...grip.fingers]
    .reverse()
    .map((f, i) => (grip.frets[grip.frets.length - 1 - i] === null ? '×' : f || '○'))
    .join(' ')

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
  return (
    <section className={css.compare} aria-label={t('shapes.compare')}>
      <div className={css['compare-head']}>
        <h3>{t('shapes.fromTo', { from: names.chord(from.chord), to: names.chord(to.chord) })}</h3>
        <CloseButton aria-label={t('shapes.compareClose')} onClick={onClose} />
      </div>
      {from.shape.frets.length === to.shape.frets.length ? (
        <TheWay setup={setup} from={from} to={to} />
      ) : (
        <p>{t('shapes.compareOther')}</p>
      )}
    </section>
  )
}

/** Cheaper by less than this is not worth relearning. */
const WORTH_SAYING = 0.2

function TheWay({ setup, from, to }: { setup: Setup; from: Held; to: Held }) {
  const { t } = useTranslation()
  const change = chordChange(setup, from.shape, to.shape)
  const best = bestPair(setup, everyWay(setup, from.shape), everyWay(setup, to.shape))
  return (
    <>
      <div className={css['compare-boxes']}>
        <ChordBox setup={setup} frets={from.shape.frets} fingers={from.shape.fingers} chord={from.chord} />
        <span aria-hidden>→</span>
        <ChordBox setup={setup} frets={to.shape.frets} fingers={to.shape.fingers} chord={to.chord} />
      </div>
      <Moves change={change} />
      <p data-testid="best-pair">
        {best && best.change.cost < change.cost - WORTH_SAYING
          ? t('shapes.easierPair', { from: digits(best.from), to: digits(best.to) })
          : t('shapes.noEasierPair')}
      </p>
    </>
  )
}
