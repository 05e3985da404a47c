import type { Finger } from '../../../hand/moves/placedFinger.ts'
import type { Wording } from './wording.ts'

/** All that a language has for lesson steps. */
export interface LanguageWords {
  readonly full: Wording
  readonly short: Wording
  /** Fretting fingers by number, and picking fingers by letter. */
  readonly fingers: Readonly<Record<Finger, string>>
  readonly picking: Wording['picking']
}
