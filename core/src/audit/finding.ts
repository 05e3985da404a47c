import { type Message } from '../messages/message.ts'

export const FINDING_KINDS = [
  'melodyMissing',
  'melodyWrong',
  'melodyExtra',
  'melodyCut',
  'melodyMasked',
  'stringClash',
  'outsideNeck',
  'wrongPitch',
  'outsideMeasure',
  'noRoot',
  'wrongRoot',
  'bassCut',
  'stretch',
  'fingerTwice',
  'fingerOrder',
  'hop',
  'pluckTwice',
  'arrivalFrom',
  'fingerNotDown',
  'bendRoom',
  'bendHard',
  'pickCross',
  'pickRepeat',
  'pickGap',
] as const
export type FindingKind = (typeof FINDING_KINDS)[number]

/** Kinds that make a tab wrong, as against less comfortable. */
export const STRUCTURAL: ReadonlySet<FindingKind> = new Set<FindingKind>([
  'melodyMissing',
  'melodyWrong',
  'melodyExtra',
  'melodyMasked',
  'stringClash',
  'outsideNeck',
  'wrongPitch',
  'outsideMeasure',
  'stretch',
  'fingerTwice',
  'fingerOrder',
  'pluckTwice',
  'arrivalFrom',
  'fingerNotDown',
  'bendRoom',
])

/** Something wrong with a finished tab. `measure` is an index; `value` is in the unit that the kind implies. */
export interface Finding {
  readonly kind: FindingKind
  readonly measure: number
  readonly start: number
  readonly says: Message<'auditing'>
  readonly value?: number
}

/** Takes down one finding at a place of the page. */
export type Add = (kind: FindingKind, start: number, says: Message<'auditing'>, value?: number) => void
