import type { ArrangeValues } from '../options.ts'

/** A tune, or all that a file holds, to be converted. */
export interface Job {
  /** What it is called where it fails. */
  readonly label: string
  /** Absent where the file could not be read: `failed` says why. */
  readonly text?: string
  readonly failed?: string
  /** Name of the files, without the ending. */
  readonly base: string
  readonly out: string
  readonly targets: readonly string[]
  readonly values: ArrangeValues
}

/** What became of it. */
export interface JobDone {
  readonly label: string
  readonly tunes: number
  readonly written: number
  readonly failures: readonly string[]
}
