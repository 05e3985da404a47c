import { expose } from 'comlink'
import type { Sign, WorkerApi } from './supervised.ts'

/** Offers what a worker can do to a `Supervised`: it says what it begins, and that it hears. */
export function serve(api: WorkerApi): void {
  const say = (sign: Sign) => postMessage(sign)
  const methods = api as unknown as Record<string, (...args: readonly unknown[]) => unknown>
  expose({
    run: (job: number, method: string, ...args: readonly unknown[]) => {
      say({ sign: 'began', job })
      return methods[method]!(...args)
    },
    hear: () => say({ sign: 'hears' }),
  })
}
