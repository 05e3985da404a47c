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

/** Begins once what stands on the page already, a typed fret above all, has been painted. */
function begin(): void {
  if (document.hidden) setTimeout(next)
  else requestAnimationFrame(() => setTimeout(next))
}

/** Queues a drawing; the returned function takes it back if it has not run yet. */
export function queueDrawing(job: () => void): () => void {
  waiting.push(job)
  if (!running) {
    running = true
    begin()
  }
  return () => {
    const at = waiting.indexOf(job)
    if (at >= 0) waiting.splice(at, 1)
  }
}
