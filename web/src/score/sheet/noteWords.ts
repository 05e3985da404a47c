import { SLIDE_MARKS } from '@velvet-porch/core/document'
import type { TFunction } from 'i18next'
import { OCTAVE } from '@velvet-porch/core/instrument'
import { EXPRESSION_PARTS, isArrival, type Expression, type TabNote } from '@velvet-porch/core/document'

/** Where a note is stopped or touched, with its name. */
export function placeWords(t: TFunction, name: string, { place, attack }: TabNote): string {
  const { string, fret } = place
  if (attack === 'muted') return t('sheet.mutedNote', { string })
  if (place.harmonic) return t('sheet.harmonic', { name, string, fret })
  if (place.artificial) return t('sheet.artificial', { name, string, fret, touched: fret + OCTAVE })
  return fret === 0 ? t('sheet.openNote', { name, string }) : t('sheet.note', { name, string, fret })
}

/** What a note states about how it and what follows is played, in the short words of a sheet; empty where nothing. */
export const expressionWords = (t: TFunction, said: Expression): string =>
  EXPRESSION_PARTS.flatMap((part) => (said[part] ? [t(`sheet.said.${said[part]}`)] : [])).join(' ')

/** How a note is sounded, beyond being plucked: its short notes, its arrival, its bend, its marks. */
export function soundedWords(t: TFunction, { graces, attack, bend, ...marks }: TabNote): string[] {
  const words: string[] = []
  if (graces)
    words.push(
      t('sheet.spoken.graces', { count: graces.length, frets: graces.map((g) => g.place.fret).join(', ') }),
    )
  if (isArrival(attack)) words.push(t(`sheet.spoken.${attack}`))
  else if (bend) words.push(t('sheet.spoken.bentBefore'))
  for (const mark of [
    'vibrato',
    'accent',
    'palmMute',
    'staccato',
    'fermata',
    'rolled',
    'damp',
    ...SLIDE_MARKS,
  ] as const)
    if (marks[mark]) words.push(t(`sheet.spoken.${mark}`))
  const said = expressionWords(t, marks)
  if (said) words.push(said)
  if (marks.remark) words.push(marks.remark)
  if (marks.optional) words.push(t('sheet.spoken.optional'))
  return words
}
