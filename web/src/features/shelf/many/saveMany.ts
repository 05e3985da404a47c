import { arrangementOf, wholeTune } from '@velvet-porch/core/arrange'
import type { ArrangementDoc, Level, Score, Style, TuneDoc } from '@velvet-porch/core/document'
import type { Format } from '@velvet-porch/core/formats'
import { setupOf, type InstrumentKind } from '@velvet-porch/core/instrument'
import { readArrangementDoc, readTuneDoc } from '@velvet-porch/core/schema'
import { strToU8, zipSync, type Zippable } from 'fflate'
import i18next from 'i18next'
import { db } from '../../../state/db.ts'
import { playerOf } from '../../../state/players.ts'
import { currentPrefs } from '../../../state/prefs.ts'
import { arrangementId } from '../../../state/shelf.ts'
import { storing } from '../../../state/storageTrouble.ts'
import { say } from '../../../texts/say.ts'
import { errorWords } from '../../../workers/errorWords.ts'
import { ManyWorkers } from '../../../workers/manyWorkers.ts'

/** What is made of many tunes at once. */
export interface ManyOrder {
  readonly ids: readonly string[]
  /** Formats by their ids; none where tabs are only made. */
  readonly formats: readonly string[]
  /** What tunes without a tab are arranged for, and as. */
  readonly instrument: InstrumentKind
  readonly style: Style
  readonly level: Level
}

/** How far the work is. */
export interface ManyProgress {
  readonly done: number
  readonly title: string
  /** Tunes that could not be arranged or written, with the reason. */
  readonly failed: readonly string[]
}

/** What became of it. */
export interface ManyDone {
  readonly zip: Uint8Array<ArrayBuffer> | undefined
  readonly arranged: number
  readonly failed: readonly string[]
}

/**
 * Arranges every tune that has no tab, keeps the tabs on the shelf, and writes all of them into one zip. What cannot be done is named and does
 * not stop the rest; undefined where it was stopped: tabs that were made by then stay.
 */
export async function saveMany(
  order: ManyOrder,
  onProgress: (progress: ManyProgress) => void,
  signal: AbortSignal,
): Promise<ManyDone | undefined> {
  const { ids, formats } = order
  const { canWrite, FORMATS, freeFileName } = await import('@velvet-porch/core/formats')
  const { finish } = await import('@velvet-porch/core/turns')
  const wanted: readonly Format[] = FORMATS.filter((f) => formats.includes(f.id))
  const files: Zippable = {}
  const names = new Set<string>()
  const failed: string[] = []
  const workers = new ManyWorkers()
  let [next, done, arranged] = [0, 0, 0]
  const one = async (id: string): Promise<void> => {
    let title = ''
    try {
      const tune = readTuneDoc(await db.tunes.get(id))
      title = tune.title
      const kept = await db.arrangements.get(arrangementId(id))
      const arrangement = kept
        ? readArrangementDoc(kept, tune)
        : await arrangedAs(tune, order, workers, signal)
      if (!arrangement) return
      if (!kept) arranged++
      const score: Score = { tune, arrangement }
      for (const format of wanted) {
        if (!format.writes || !canWrite(format, score)) continue
        const content = finish(format.writes.writing(score))
        files[freeFileName(tune.title, names, `.${format.endings[0] ?? ''}`)] =
          typeof content === 'string' ? strToU8(content) : content
      }
    } catch (error) {
      failed.push(`${title || id}: ${errorWords(i18next.t, error)}`)
    }
    onProgress({ done: ++done, title, failed })
  }
  const lane = async (): Promise<void> => {
    for (let id = ids[next++]; id !== undefined && !signal.aborted; id = ids[next++]) await one(id)
  }
  try {
    await Promise.all(Array.from({ length: workers.size }, lane))
  } finally {
    workers.end()
  }
  if (signal.aborted) return undefined
  const zip = Object.keys(files).length > 0 ? new Uint8Array(zipSync(files)) : undefined
  return { zip, arranged, failed }
}

/** A tab in one style, kept on the shelf; undefined where the work was stopped. */
async function arrangedAs(
  tune: TuneDoc,
  { style, level, instrument }: ManyOrder,
  workers: ManyWorkers,
  signal: AbortSignal,
): Promise<ArrangementDoc | undefined> {
  const { player } = currentPrefs()
  const hand = playerOf(player === undefined ? undefined : await db.players.get(player))
  const setup = setupOf(instrument, undefined, undefined, hand)
  // Chords without a melody can only be accompanied.
  const isSung = tune.events.every((e) => !e.pitch) && tune.chords.length > 0
  const regions = wholeTune(tune, isSung ? 'strum' : style, level)
  const reply = await workers.arrange({ tune, setup, regions, locks: [] }, signal)
  if (signal.aborted || reply.kind === 'cancelled') return undefined
  if (reply.kind === 'failed') throw new Error(say(i18next.t, reply.says))
  if (reply.kind === 'lost') throw reply.error
  const { layer, transposed } = reply
  const made = arrangementOf(arrangementId(tune.id), tune.title, tune, setup, regions, { layer, transposed })
  await storing(() => db.arrangements.add(made))
  return made
}
