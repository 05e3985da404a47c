/** The greatest common divisor of two whole numbers; 1 where one of them is none. @example commonDivisor(12, 18) // 6 */
export function commonDivisor(a: number, b: number): number {
  if (!Number.isInteger(a) || !Number.isInteger(b)) return 1
  let [x, y] = [Math.abs(a), Math.abs(b)]
  while (y !== 0) [x, y] = [y, x % y]
  return x || 1
}
