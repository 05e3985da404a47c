import { decodeSource, looksLikeTab, problemText, type TuneDoc } from '@velvet-porch/core'
import { db } from '../store/db.ts'
import { playerOf } from '../store/players.ts'
import { currentPrefs } from '../store/prefs.ts'
import { addScore, addTunes } from '../store/shelf.ts'
import { readInWorker, readTabInWorker } from '../worker/benchWorker.ts'

/** What became of a text or file: tunes that are now on the shelf, and what could not be read. */
export interface Intake {
  readonly tunes: readonly TuneDoc[]
  readonly complaints: readonly string[]
  /** What was read otherwise than it stands, or guessed. */
  readonly remarks: readonly string[]
  /** True where a tune came with its tab. */
  readonly withTab: boolean
}

/** Reads ABC or plain-text tab and puts every tune that could be read on the shelf. Earlier work is never touched. */
export async function takeText(text: string, title = ''): Promise<Intake> {
  if (!/^[XK]:/m.test(text) && looksLikeTab(text)) return takeTab(text, title)
  const readings = await readInWorker(text)
  const tunes = readings.flatMap((r) => (r.tune ? [r.tune] : []))
  const complaints = readings.flatMap((r) =>
    r.tune ? [] : r.problems.filter((p) => p.severity === 'error').map(problemText),
  )
  if (tunes.length > 0) await addTunes(tunes)
  return { tunes, complaints, remarks: [], withTab: false }
}

/** Reads a tab for the hand in use. */
async function takeTab(text: string, title: string): Promise<Intake> {
  const { player } = currentPrefs()
  const hand = playerOf(player === undefined ? undefined : await db.players.get(player))
  const { score, failed, problems } = await readTabInWorker(text, hand, title)
  const remarks = problems.map(problemText)
  if (!score) return { tunes: [], complaints: [failed!, ...remarks], remarks: [], withTab: false }
  await addScore(score)
  return { tunes: [score.tune], complaints: [], remarks, withTab: true }
}

export async function takeFiles(files: readonly File[], title = ''): Promise<Intake> {
  const all = await Promise.all(
    files.map(async (file): Promise<Intake> => {
      const source = decodeSource(new Uint8Array(await file.slice(0, 10_000_000).arrayBuffer()))
      if (!source.ok)
        return { tunes: [], complaints: [`${file.name}: ${source.reason}`], remarks: [], withTab: false }
      const intake = await takeText(source.text, title)
      return {
        ...intake,
        complaints: [
          ...(source.note ? [`${file.name}: ${source.note}`] : []),
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
