/** A job that did not end well: its worker was silent for too long, or broke. */
export class WorkerError extends Error {
  override readonly name = 'WorkerError'
  constructor(
    readonly reason: 'silent' | 'broken',
    /** What the browser says of it. */
    readonly detail = '',
  ) {
    super(`${reason} ${detail}`.trim())
  }
}
