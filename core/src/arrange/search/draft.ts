import type { Pressed } from '../../hand/grip/pressed.ts'
import type { Place } from '../../instrument/setup.ts'
import type { BassOption, InnerOption } from './requirement.ts'

/** A grip as it is generated and priced, before it is packed for the search. */
export interface Draft {
  readonly pressed: readonly Pressed[]
  readonly position: number
  readonly melody: Place | undefined
  readonly melodyFinger: number
  readonly bass: BassOption | undefined
  readonly bassFinger: number
  readonly inner: InnerOption | undefined
  readonly innerFinger: number
  /** The melody note before, still held. */
  readonly planted: Place | undefined
  readonly plantedFinger: number
  /** Index into the requirement's held shapes; −1 where no chord shape is held. */
  readonly heldShape: number
  /** True where the held shape's notes are struck here with the melody. */
  readonly strikes: boolean
}
