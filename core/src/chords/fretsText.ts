/**
 * Frets as they are said, from the lowest string: x for a string that does not sound.
 * @param frets by string, string 1 first
 * @example fretsText([0, 1, 0, 2, 3, null]) // 'x-3-2-0-1-0'
 */
export function fretsText(frets: readonly (number | null)[]): string {
  return [...frets]
    .reverse()
    .map((f) => f ?? 'x')
    .join('-')
}
