import { readInWorker } from '../workers/benchWorker.ts'

/** Brings what a first tune needs, while nothing else is to be done: its code, and a worker that has begun. */
export async function warmUp(): Promise<void> {
  await Promise.allSettled([
    import('../features/shelf/demo/takeDemo.ts'),
    import('../features/tune/TuneStage.tsx'),
    import('../features/arrange/ArrangeStage.tsx'),
    readInWorker('X:1\nK:C\n'),
  ])
}
