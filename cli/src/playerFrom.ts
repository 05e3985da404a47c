import type { Player } from '@velvet-porch/core/instrument'
import { readPlayer } from '@velvet-porch/core/schema'
import { readText } from './readInput.ts'
import { UsageError } from './usage.ts'

/** A hand from a JSON file: spans in mm by finger pair, techniques, school, handedness. */
export function playerFrom(file: string): Player {
  let value: unknown
  try {
    value = JSON.parse(readText(file).text)
  } catch (error) {
    if (error instanceof UsageError) throw error
    throw new UsageError(
      `${file}: this is not JSON. A hand is an object with spans, techniques, school and handedness.`,
    )
  }
  try {
    return readPlayer(value)
  } catch (error) {
    throw new UsageError(`${file}: ${(error as Error).message}`)
  }
}
