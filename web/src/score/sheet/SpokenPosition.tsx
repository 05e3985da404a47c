import { VisuallyHidden } from '@mantine/core'
import { pitchAt } from '@velvet-porch/core/instrument'
import { useTranslation } from 'react-i18next'
import type { Cell } from './cells.ts'
import { useNames } from '../../ui/names/useNames.ts'
import { doubleStops } from './doubleStops.ts'
import { placeWords, soundedWords } from './noteWords.ts'
import { beatOf, chordLabel, inFlats, type SheetModel, type SheetPosition } from './sheetModel.ts'

/** Says the selected spot to a screen reader: measure, beat, chord, every note with both hands. */
export function SpokenPosition({
  model,
  position,
  cell,
}: {
  model: SheetModel
  position: SheetPosition | undefined
  /** The cell under the pen, while the sheet is written on. */
  cell?: Cell | undefined
}) {
  const { t } = useTranslation()
  const names = useNames()
  if (!position) return <VisuallyHidden aria-live="polite" />
  if (cell) return null // The writing bar says where the pen stands.
  const number = model.numbers[position.measure]!
  const start = model.timeline.starts[position.measure]! + position.tick
  const chord = model.harmony.find((h) => h.start <= start && h.end > start)
  const notes = (model.notes.get(position.measure) ?? []).filter((n) => n.pos.tick === position.tick)
  const words = [
    number === 0 ? t('sheet.pickup') : t('sheet.measure', { number }),
    t('sheet.beat', { beat: beatOf(model, position) }),
    ...(chord ? [chordLabel(chord, names)] : []),
    ...notes.map((n) => {
      const midi = model.setup ? pitchAt(model.setup, n.place) + (n.bend ?? 0) : 0
      const name = model.setup ? names.pitch(midi, inFlats(model)) : ''
      const finger = n.left === 0 ? [] : [t('sheet.withFinger', { finger: n.left })]
      const picked =
        n.right === 'none'
          ? []
          : n.right === 'down' || n.right === 'up'
            ? [t(`sheet.stroke.${n.right}`)]
            : [t('sheet.picked', { finger: n.right })]
      return [placeWords(t, name, n), ...finger, ...picked, ...soundedWords(t, n)].join(', ')
    }),
    ...doubleStops(model, notes).map(({ interval }) =>
      t(`sheet.interval.${interval.quality}`, { number: t(`sheet.ordinal.${interval.number as 1}`) }),
    ),
  ]
  return (
    <VisuallyHidden aria-live="polite" data-testid="spoken">
      {words.join(', ')}
    </VisuallyHidden>
  )
}
