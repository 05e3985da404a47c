import type { Keeping } from '@velvet-porch/core/studio'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { asLogOf, keepLog, lookAtLog, type ReturnedLog } from '../../state/logs.ts'
import { errorWords } from '../../workers/errorWords.ts'

/** A file that came back and what became of it. */
export type ReturnedFile =
  | { readonly state: 'refused'; readonly file: string; readonly reason: string }
  | { readonly state: 'asks' | 'kept'; readonly returned: ReturnedLog }

export type ReturnedLogs = ReturnType<typeof useReturnedLogs>

/** True where nobody has to be asked: it is known whose it is, and nothing is told differently here. */
const isClear = ({ merged, otherPieces }: ReturnedLog): boolean =>
  merged !== undefined && !otherPieces && merged.conflicts.length === 0

/**
 * Practice files that come back: each is read, what is clear is kept at once, what is not is asked.
 * @param student whose they are where they do not say
 */
export function useReturnedLogs(student?: string) {
  const { t } = useTranslation()
  const [files, setFiles] = useState<readonly ReturnedFile[]>([])
  const settle = async (returned: ReturnedLog, keeping?: Keeping): Promise<ReturnedFile> => {
    if (keeping === undefined && !isClear(returned)) return { state: 'asks', returned }
    await keepLog(returned, keeping ?? 'here')
    return { state: 'kept', returned }
  }
  const put = (i: number, file: ReturnedFile) => setFiles((all) => all.with(i, file))
  return {
    files,
    async read(chosen: readonly File[]) {
      const read: ReturnedFile[] = []
      // One after the other: two files of one student are joined one into the other.
      for (const file of chosen)
        try {
          read.push(await settle(await lookAtLog(file.name, await file.text(), student)))
        } catch (e) {
          read.push({ state: 'refused', file: file.name, reason: errorWords(t, e) })
        }
      setFiles(read)
    },
    /** Says whose a file is. */
    async give(i: number, returned: ReturnedLog, whose: string) {
      put(i, await settle(await asLogOf(returned, whose)))
    },
    /** Keeps a file in which something is told differently. */
    async keep(i: number, returned: ReturnedLog, keeping: Keeping) {
      put(i, await settle(returned, keeping))
    },
  }
}
