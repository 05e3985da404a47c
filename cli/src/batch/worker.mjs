// A worker thread of its own loads the TypeScript sources as the main thread does.
import { register } from 'tsx/esm/api'

register()
const { default: doJob } = await import('./doJob.ts')
export default doJob
/** A browser that drew pages is ended with its thread. */
export const { closeBrowser } = await import('../convert/drawn.ts')
