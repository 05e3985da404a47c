/** Draws one system at a time between other work, so that fast scrolling never makes one long task. */
const waiting: (() => void)[] = []
let running = false

function next(): void {
  const job = waiting.shift()
  if (!job) {
    running = false
    return
  }
  job()
  setTimeout(next)
}

/** Queues a drawing; the returned function takes it back if it has not run yet. */
export function queueDrawing(job: () => void): () => void {
  waiting.push(job)
  if (!running) {
    running = true
    setTimeout(next)
  }
  return () => {
    const at = waiting.indexOf(job)
    if (at >= 0) waiting.splice(at, 1)
  }
}
