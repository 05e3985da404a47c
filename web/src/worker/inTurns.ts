/** The most milliseconds of work before messages (a cancel, a question whether it still hears) are heard. */
export const SLICE_MS = 12

const { port1, port2 } = new MessageChannel()
const breathing: (() => void)[] = []
port1.onmessage = () => breathing.shift()?.()

/** Lets messages be heard. By a message of its own: browsers hold a nested timer back for four milliseconds. */
export const breathe = () =>
  new Promise<void>((resolve) => {
    breathing.push(resolve)
    port2.postMessage(undefined)
  })

/**
 * Runs long work in a worker so that messages are heard on the way.
 * @param onTurn is handed what the work yielded last, once a slice
 */
export async function inTurns<Y, T>(run: Generator<Y, T>, onTurn?: (yielded: Y) => void): Promise<T> {
  let slice = performance.now()
  for (let item = run.next(); ; item = run.next()) {
    if (item.done) return item.value
    if (performance.now() - slice < SLICE_MS) continue
    onTurn?.(item.value)
    await breathe()
    slice = performance.now()
  }
}
