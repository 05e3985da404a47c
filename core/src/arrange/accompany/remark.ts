/** Something that an accompaniment could not do as it was asked, and what it did instead. `measure` is an index. */
export type AccompanyRemark =
  | { readonly kind: 'noChords'; readonly measure: number }
  | { readonly kind: 'noShape'; readonly measure: number; readonly chord: string }
  | { readonly kind: 'noShuffle'; readonly measure: number; readonly chord: string }
  | { readonly kind: 'otherMetre'; readonly measure: number; readonly metre: string; readonly wanted: string }
  | { readonly kind: 'badPattern'; readonly measure: number; readonly problem: string }
  | {
      readonly kind: 'mutedString'
      readonly measure: number
      readonly chord: string
      readonly from: number
      /** The string taken instead; 0 where none is left. */
      readonly to: number
    }
  | {
      readonly kind: 'fewStrings'
      readonly measure: number
      readonly chord: string
      readonly lacking: number
    }
  | { readonly kind: 'againstArm'; readonly measure: number; readonly step: number }
  | {
      readonly kind: 'movedNote'
      readonly measure: number
      /** Octaves up (or, below nothing, down). */
      readonly octaves: number
      /** Semitones by which the lowest string would have to go down for it; 0 where that is no help. */
      readonly lower: number
    }

/** The remark in a sentence. `number` is the measure's number on the page. */
export function remarkText(remark: AccompanyRemark, number: number): string {
  const at = `Measure ${number}: `
  switch (remark.kind) {
    case 'noChords':
      return `${at}an accompaniment needs chords, and there are none. Write them over the tune, or have them proposed.`
    case 'noShape':
      return `${at}this hand holds no shape for ${remark.chord} in this tuning; the chord is left out. Pin a shape of your own.`
    case 'noShuffle':
      return `${at}no place for root, fifth and sixth of ${remark.chord} in reach of this hand; its shape is struck instead.`
    case 'otherMetre':
      return `${at}the pattern is for ${remark.wanted}, the measure has ${remark.metre}; the usual pattern of ${remark.metre} is played.`
    case 'badPattern':
      return `${at}the usual pattern is played. ${remark.problem}`
    case 'mutedString':
      return remark.to === 0
        ? `${at}the shape of ${remark.chord} mutes string ${remark.from}, and no other string is free; it is left out.`
        : `${at}the shape of ${remark.chord} mutes string ${remark.from}; string ${remark.to} is plucked instead.`
    case 'fewStrings':
      return `${at}the shape of ${remark.chord} has ${remark.lacking} string(s) fewer than the stroke asks for.`
    case 'movedNote': {
      const way = remark.octaves > 0 ? 'higher' : 'lower'
      const tuning =
        remark.lower > 0 ? ` With the lowest string ${remark.lower} semitone(s) lower it would be there.` : ''
      return `${at}the instrument does not have a note of the melody; it is played ${Math.abs(remark.octaves)} octave(s) ${way}.${tuning}`
    }
    case 'againstArm':
      return `${at}step ${remark.step} of the pattern strikes against the arm's swing (down on the beat, up off it).`
  }
}
