import { nameText, plainName, type NoteName, pitchClass } from '../../music/pitch/pitch.ts'

/** Twelve-bar forms as degrees of the key by measure. Common practice, no source. */
export const TWELVE_BAR_FORMS = {
  /** The first chord for four measures. */
  slow: [0, 0, 0, 0, 5, 5, 0, 0, 7, 5, 0, 7],
  /** To the fourth and back in the second measure. */
  quick: [0, 5, 0, 0, 5, 5, 0, 0, 7, 5, 0, 7],
  /** Two measures on the fifth before home. */
  long: [0, 0, 0, 0, 5, 5, 0, 0, 7, 7, 0, 0],
} as const
export type TwelveBarForm = keyof typeof TWELVE_BAR_FORMS

/**
 * A twelve-bar form in ABC, all sevenths, its melody still to be written (rests).
 * @example twelveBarAbc({ step: 'A', alter: 0 }, 'quick', 'Twelve bars in A', 100)
 */
export function twelveBarAbc(tonic: NoteName, form: TwelveBarForm, title: string, bpm: number): string {
  const flats = tonic.alter < 0 || tonic.step === 'F'
  const chords = TWELVE_BAR_FORMS[form].map(
    (degree) => `"${nameText(plainName(pitchClass(tonic) + degree + 60, flats))}7"z4`,
  )
  const rows = [0, 4, 8].map((from) => chords.slice(from, from + 4).join('|'))
  return `X:1\nT:${title}\nM:4/4\nL:1/4\nQ:1/4=${bpm}\nK:${nameText(tonic)}\n|:${rows.join('|\n')}:|\n`
}
