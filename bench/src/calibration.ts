/**
 * A fixed loop whose time stands for the machine's speed: integer and float work on typed arrays, about as the solver
 * does it. Ratios to it can be compared between machines.
 * @returns milliseconds, median of seven
 */
export function calibrate(): number {
  return median(Array.from({ length: 7 }, () => timed(loop)))
}

function loop(): number {
  const cells = new Float64Array(4096)
  let sum = 0
  for (let round = 0; round < 600; round++) {
    for (let i = 0; i < cells.length; i++) {
      const x = cells[(i * 7 + round) & 4095]! * 0.5 + ((i ^ round) & 63)
      cells[i] = x
      if (x > 60) sum += x
    }
  }
  return sum
}

/** Milliseconds of one run. */
export function timed(work: () => unknown): number {
  const start = performance.now()
  work()
  return performance.now() - start
}

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[sorted.length >> 1]!
}
