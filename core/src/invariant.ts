/** Something that the code around takes for granted does not hold: a fault of the program, not of what it was given. */
export class InvariantError extends Error {
  override readonly name = 'InvariantError'
}

/**
 * A value that must be there at this point, whatever its type says.
 * @throws InvariantError where it is missing
 */
export function present<T>(value: T): NonNullable<T> {
  if (value === undefined || value === null)
    throw new InvariantError('A value that must be there is missing.')
  return value
}

/**
 * What a map holds under a key that it must hold.
 * @throws InvariantError where it does not, with the key
 */
export function knownIn<K, V>(map: ReadonlyMap<K, V>, key: K): V {
  const value = map.get(key)
  if (value === undefined && !map.has(key)) throw new InvariantError(`Nothing is known under ${String(key)}.`)
  return value as V
}
