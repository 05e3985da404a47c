import { useLiveQuery } from 'dexie-react-hooks'
import { reportTrouble } from './storageTrouble.ts'

/**
 * What storage holds, followed live. Where storage fails that is shown once on the page, and there is nothing.
 * @returns undefined until it has been read, and where it cannot be
 */
export function useStored<T>(query: () => Promise<T> | T, deps: readonly unknown[] = []): T | undefined {
  return useLiveQuery(async () => {
    try {
      return await query()
    } catch (error) {
      reportTrouble(error)
      return undefined
    }
  }, [...deps])
}
