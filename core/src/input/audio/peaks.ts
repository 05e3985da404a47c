/** Where a parabola through a peak and its neighbours is highest, in places from the peak; NaN where a neighbour is −∞. */
export function offPeak(before: number, peak: number, after: number): number {
  const curve = before - 2 * peak + after
  return curve < 0 ? (0.5 * (before - after)) / curve : 0
}

/** A distance in cents, positive where the first is the higher. */
export const centsBetween = (hertz: number, from: number): number => 1200 * Math.log2(hertz / from)
