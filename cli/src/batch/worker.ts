/** What a worker thread does: one job after the other. A browser that drew pages is ended with its thread. */
export { default } from './doJob.ts'
export { closeBrowser } from '../convert/drawn.ts'
