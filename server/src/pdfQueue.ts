import PQueue from 'p-queue'

/** Pages that are printed at once, and that may wait: each takes a window of the browser. */
const AT_ONCE = 2
const MOST_WAITING = 20

/** True for a queue that takes no more. */
export class QueueFullError extends Error {
  override readonly name = 'QueueFullError'
}

/** Printing, at most two at once: more wait, and more than twenty are refused. Whoever leaves makes room. */
export class PdfQueue {
  readonly #queue = new PQueue({ concurrency: AT_ONCE })

  /**
   * @param print hears when it is no longer wanted
   * @throws QueueFullError where too many wait; AbortError where it was given up before its turn
   */
  async run(print: () => Promise<Buffer>, signal: AbortSignal): Promise<Buffer> {
    if (this.#queue.size >= MOST_WAITING) throw new QueueFullError('Too many PDFs are wanted at once.')
    return this.#queue.add(print, { signal, throwOnTimeout: true })
  }
}
