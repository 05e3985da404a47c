import { present } from '@velvet-porch/core/invariant'
import type { TuneDoc } from '@velvet-porch/core/document'
import { db } from '../../../state/db.ts'
import { addTunes } from '../../../state/shelf.ts'
import { readInWorker } from '../../../workers/benchWorker.ts'
import { takeText } from '../intake.ts'
import { arrangeDemo, arrangeDemoBehind } from './demoBehind.ts'
import { DEMO_SET, DEMO_SETTINGS } from './demoSettings.ts'

/** What was taken of the demo. */
interface DemoTaken {
  /** The tune that is opened: it is arranged. */
  readonly first: string
  /** The tunes that are new on the shelf; those that were there already stay as they are. */
  readonly fresh: readonly string[]
}

/**
 * Puts the demo on the shelf as one set: what of it is there already is not put there again. The tune that is opened is
 * arranged first, the others behind.
 */
export async function takeDemo(): Promise<DemoTaken> {
  const there = await db.shelf.filter((r) => r.set === DEMO_SET && r.removedAt === undefined).toArray()
  const idOf = (title: string) => there.find((r) => r.title === title)?.id
  const { default: text } = await import('../../../../../demo/tunes.abc?raw')
  const read = (await readInWorker(text)).flatMap((r) => (r.tune ? [r.tune] : []))
  const tunes = DEMO_SETTINGS.map(({ title }) => present(read.find((t) => t.title === title))).filter(
    ({ title }) => idOf(title) === undefined,
  )
  await addTunes(tunes)
  const [first] = tunes
  if (first) await arrangeDemo(first)
  const song = await takeSong(idOf(SONG_TITLE) !== undefined)
  const fresh = [...tunes, ...song].map(({ id }) => id)
  await db.shelf.bulkUpdate(fresh.map((key) => ({ key, changes: { set: DEMO_SET } })))
  arrangeDemoBehind()
  return { first: first?.id ?? present(idOf(DEMO_SETTINGS[0]!.title)), fresh }
}

const SONG_TITLE = 'Willow Ferry'

/** The song of the demo: words with chords. */
async function takeSong(there: boolean): Promise<readonly TuneDoc[]> {
  if (there) return []
  const { default: text } = await import('../../../../../demo/willow-ferry.cho?raw')
  return (await takeText(text)).tunes
}
