import { present } from '@velvet-porch/core/invariant'
import type { TuneDoc } from '@velvet-porch/core/document'
import { decodeSource, LARGEST_SOURCE_BYTES, looksLikeTab } from '@velvet-porch/core/input'
import { takeTuneFile } from '../../state/backup.ts'
import i18next from 'i18next'
import { problemText, problemWords, say } from '../../texts/say.ts'
import { errorWords } from '../../workers/errorWords.ts'
import { db } from '../../state/db.ts'
import { playerOf } from '../../state/players.ts'
import { currentPrefs } from '../../state/prefs.ts'
import { addScore, addTunes } from '../../state/shelf.ts'
import { readInWorker, readTabInWorker } from '../../workers/benchWorker.ts'
import type { Message } from '@velvet-porch/core/messages'

/** What became of a text or file: tunes that are now on the shelf, and what could not be read. */
export interface Intake {
  readonly tunes: readonly TuneDoc[]
  readonly complaints: readonly string[]
  /** What was read otherwise than it stands, or guessed. */
  readonly remarks: readonly string[]
  /** True where a tune came with its tab. */
  readonly withTab: boolean
}

/** What could not be taken, and why. */
const nothing = (...complaints: string[]): Intake => ({ tunes: [], complaints, remarks: [], withTab: false })

/** Words for a failure: a worker that was lost, storage that refused. */
const failure = (error: unknown): Intake => nothing(errorWords(i18next.t, error))

/**
 * Reads ABC, plain-text tab or a tune's own file and puts every tune that could be read on the shelf. Earlier work is never
 * touched. Never throws: what failed is a complaint.
 */
export async function takeText(text: string, title = ''): Promise<Intake> {
  try {
    return await taken(text, title)
  } catch (error) {
    return failure(error)
  }
}

async function taken(text: string, title: string): Promise<Intake> {
  if (/^\s*\{/.test(text)) return await takeJson(text)
  if (text.length > LARGEST_SOURCE_BYTES)
    return nothing(i18next.t('shelf.tooLong', { mb: (text.length / 1_000_000).toFixed(1) }))
  if (!/^[XK]:/m.test(text) && looksLikeTab(text)) return takeTab(text, title)
  const readings = await readInWorker(text)
  const tunes = readings.flatMap((r) => (r.tune ? [r.tune] : []))
  const complaints = readings.flatMap((r) =>
    r.tune ? [] : r.problems.filter((p) => p.severity === 'error').map((p) => problemText(i18next.t, p)),
  )
  if (tunes.length > 0) await addTunes(tunes)
  return { tunes, complaints, remarks: [], withTab: false }
}

/** A tune with its arrangements as it was saved here. */
async function takeJson(text: string): Promise<Intake> {
  const { BACKUP_FORMAT, readTuneFile, TUNE_FILE_FORMAT } = await import('@velvet-porch/core/schema')
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch {
    return nothing(i18next.t('shelf.otherJson'))
  }
  const format = (value as { format?: unknown } | null)?.format
  if (format === BACKUP_FORMAT) return nothing(i18next.t('shelf.everythingFile'))
  if (format !== TUNE_FILE_FORMAT) return nothing(i18next.t('shelf.otherJson'))
  const file = readTuneFile(value)
  const id = await takeTuneFile(file)
  const tune = { ...file.tune, id }
  return { tunes: [tune], complaints: [], remarks: [], withTab: file.arrangements.length > 0 }
}

/** Why a tab cannot be used, with the way out. */
function failedWords(says: Message<'reading'>): string {
  const { what, taken } = problemWords(i18next.t, { says })
  return i18next.t('problem.tab', { what, taken })
}

/** Reads a tab for the hand in use. */
async function takeTab(text: string, title: string): Promise<Intake> {
  const { player } = currentPrefs()
  const hand = playerOf(player === undefined ? undefined : await db.players.get(player))
  const { score, failed, problems } = await readTabInWorker(text, hand, title)
  const remarks = problems.map((p) => problemText(i18next.t, p))
  if (!score)
    return { tunes: [], complaints: [failedWords(present(failed)), ...remarks], remarks: [], withTab: false }
  await addScore(score)
  return { tunes: [score.tune], complaints: [], remarks, withTab: true }
}

/** A tune with a long history of versions. */
const LARGEST_TUNE_FILE = 50_000_000

export async function takeFiles(files: readonly File[], title = ''): Promise<Intake> {
  const all = await Promise.all(
    files.map(async (file): Promise<Intake> => {
      if (/^\s*\{/.test(await file.slice(0, 100).text()) && file.size <= LARGEST_TUNE_FILE)
        return takeText(await file.text(), title)
      const source = decodeSource(new Uint8Array(await file.slice(0, 10_000_000).arrayBuffer()))
      if (!source.ok)
        return {
          tunes: [],
          complaints: [`${file.name}: ${say(i18next.t, source.says)}`],
          remarks: [],
          withTab: false,
        }
      const intake = await takeText(source.text, title)
      return {
        ...intake,
        complaints: [
          ...(source.note ? [`${file.name}: ${say(i18next.t, source.note)}`] : []),
          ...intake.complaints.map((c) => `${file.name}: ${c}`),
        ],
      }
    }),
  )
  return {
    tunes: all.flatMap((a) => a.tunes),
    complaints: all.flatMap((a) => a.complaints),
    remarks: all.flatMap((a) => a.remarks),
    withTab: all.some((a) => a.withTab),
  }
}
