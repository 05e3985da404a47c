import type { Place } from '../../instrument/setup.ts'
import type { Pressed } from '../../hand/grip/pressed.ts'

/** What is fixed for one voice of a slice. */
export interface VoiceLock {
  readonly place?: Place
  readonly finger?: number
}

/** What is fixed in one slice. */
export interface SliceLock {
  readonly melody?: VoiceLock
  readonly bass?: VoiceLock
  readonly inner?: VoiceLock
  /** By the number of the voice, from the lowest string. */
  readonly chord?: Readonly<Record<number, VoiceLock>>
  /** The whole grip. */
  readonly pressed?: readonly Pressed[]
}
