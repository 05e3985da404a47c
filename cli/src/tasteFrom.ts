import type { TasteInForce } from '@velvet-porch/core/document'
import type { Setup } from '@velvet-porch/core/instrument'
import { readTaste } from '@velvet-porch/core/schema'
import { shapeFault, tasteInForce, type TasteDoc } from '@velvet-porch/core/taste'
import { readText } from './readInput.ts'
import { UsageError } from './usage.ts'

/**
 * What of a taste file holds for any tune; undefined where nothing is on in it.
 * @throws UsageError naming an entry that cannot hold
 */
export function tasteFrom(file: string, setup: Setup): TasteInForce | undefined {
  const taste = tasteInForce(docFrom(file), { tune: '' })
  if (!taste) return undefined
  for (const shape of taste.shapes) {
    const fault = shape.tuning.join() === setup.tuning.join() ? shapeFault(setup, shape) : undefined
    const name = `the shape of ${shape.chord} in the taste “${taste.name}”`
    if (fault === 'chord')
      throw new UsageError(`${file}: ${name} is not that chord; correct it, or switch it off.`)
    if (fault === 'hand')
      throw new UsageError(
        `${file}: this hand cannot hold ${name}; switch it off, or name another hand with --player.`,
      )
  }
  return taste
}

function docFrom(file: string): TasteDoc {
  let value: unknown
  try {
    value = JSON.parse(readText(file).text)
  } catch (error) {
    if (error instanceof UsageError) throw error
    throw new UsageError(`${file}: this is not JSON. A taste is saved as a file on the page Taste.`)
  }
  try {
    return readTaste(value)
  } catch (error) {
    throw new UsageError(`${file}: ${(error as Error).message}`)
  }
}
