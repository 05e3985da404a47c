import { message, type Message } from '../../messages/message.ts'
import { patternProblemMessage, type PatternProblem } from './patternText.ts'

/** Something that an accompaniment could not do as it was asked, and what it did instead. `measure` is an index. */
export type AccompanyRemark =
  | { readonly kind: 'noChords'; readonly measure: number }
  | { readonly kind: 'noShape'; readonly measure: number; readonly chord: string }
  | { readonly kind: 'noShuffle'; readonly measure: number; readonly chord: string }
  | { readonly kind: 'otherMetre'; readonly measure: number; readonly metre: string; readonly wanted: string }
  | { readonly kind: 'badPattern'; readonly measure: number; readonly problem: PatternProblem }
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

/** The remark as sentences. `number` is the measure's number on the page. */
export function remarkMessages(
  remark: AccompanyRemark,
  number: number,
): readonly Message<'accompanying' | 'pattern'>[] {
  const { kind } = remark
  switch (kind) {
    case 'noChords':
      return [message('accompanying.noChords', { number })]
    case 'noShape':
    case 'noShuffle':
      return [message(`accompanying.${kind}`, { number, chord: remark.chord })]
    case 'otherMetre':
      return [message('accompanying.otherMetre', { number, metre: remark.metre, wanted: remark.wanted })]
    case 'badPattern':
      return [message('accompanying.badPattern', { number }), patternProblemMessage(remark.problem)]
    case 'mutedString': {
      const { chord, from, to } = remark
      return [
        to === 0
          ? message('accompanying.mutedAndLeftOut', { number, chord, from })
          : message('accompanying.mutedString', { number, chord, from, to }),
      ]
    }
    case 'fewStrings':
      return [message('accompanying.fewStrings', { number, chord: remark.chord, count: remark.lacking })]
    case 'movedNote': {
      const { octaves, lower } = remark
      const moved = octaves > 0 ? 'accompanying.movedUp' : 'accompanying.movedDown'
      return [
        message(moved, { number, count: Math.abs(octaves) }),
        ...(lower > 0 ? [message('accompanying.lowerString', { count: lower })] : []),
      ]
    }
    case 'againstArm':
      return [message('accompanying.againstArm', { number, step: remark.step })]
  }
}
