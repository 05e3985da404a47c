/** The most milliseconds of work before messages (a cancel, a question whether it still hears) are heard. */
const SLICE_MS = 12

const { port1, port2 } = new MessageChannel()
const breathing: (() => void)[] = []
port1.onmessage = () => breathing.shift()?.()

/** Lets messages be heard. By a message of its own: browsers hold a nested timer back for four milliseconds. */
export const breathe = () =>
  new Promise<void>((resolve) => {
    breathing.push(resolve)
    port2.postMessage(undefined)
  })

/** Milliseconds between two reports of progress: the page draws each of them. */
const REPORT_MS = 100

/** What is done between two turns. */
export interface BetweenTurns<Y> {
  /** Is handed what the work yielded last, a few times a second. What it returns is awaited before the work ends. */
  readonly onProgress?: (yielded: Y) => unknown
  /** True where the work is to be dropped. */
  readonly isStopped?: () => boolean
}

/** Runs long work in a worker so that messages are heard on the way. */
export function inTurns<Y, T>(run: Generator<Y, T>, between?: Omit<BetweenTurns<Y>, 'isStopped'>): Promise<T>
/** The same for work that may be stopped: undefined where it was. */
export function inTurns<Y, T>(run: Generator<Y, T>, between: BetweenTurns<Y>): Promise<T | undefined>
export async function inTurns<Y, T>(
  run: Generator<Y, T>,
  { onProgress, isStopped }: BetweenTurns<Y> = {},
): Promise<T | undefined> {
  let slice = performance.now()
  let reported = -Infinity
  let lastReport: unknown
  for (let item = run.next(); ; item = run.next()) {
    if (item.done) {
      // A report goes by a port of its own: not awaited, it may be heard after the result, which it would undo.
      await lastReport
      return item.value
    }
    const now = performance.now()
    if (now - slice < SLICE_MS) continue
    if (now - reported > REPORT_MS) {
      lastReport = Promise.resolve(onProgress?.(item.value)).catch(() => undefined)
      reported = now
    }
    await breathe()
    if (isStopped?.()) return undefined
    slice = performance.now()
  }
}
