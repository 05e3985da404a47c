/** The command line cannot be understood. The message says what is wrong and what would do. */
export class UsageError extends Error {
  override readonly name = 'UsageError'
}

/** One of a list of words. */
export function oneOf<T extends string>(value: string, allowed: readonly T[], option: string): T {
  const found = allowed.find((a) => a === value)
  if (!found) throw new UsageError(`--${option} "${value}" is not known; use ${allowed.join(', ')}.`)
  return found
}

/** A whole number in a range. */
export function wholeNumber(value: string, low: number, high: number, option: string): number {
  const n = Number(value)
  if (value.trim() === '' || !Number.isInteger(n) || n < low || n > high) {
    throw new UsageError(`--${option} "${value}" must be a whole number from ${low} to ${high}.`)
  }
  return n
}

/** A number of semitones, up or down. */
export function semitones(text: string, option: string): number {
  const n = Number(text)
  if (!Number.isInteger(n) || Math.abs(n) > 11)
    throw new UsageError(`--${option} "${text}" is no number of semitones from −11 to 11.`)
  return n
}
