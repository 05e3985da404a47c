import { dayOf } from '@velvet-porch/core/studio'
import { present } from '@velvet-porch/core/invariant'
import { db } from '../../../state/db.ts'
import { addTunes } from '../../../state/shelf.ts'
import { readInWorker } from '../../../workers/benchWorker.ts'
import { comesBehind } from '../../../state/arrangedBehind.ts'
import { arrangeDemo, asSet, bringRest } from './demoBehind.ts'
import { bringDemoStudio } from './demoStudio.ts'
import { DEMO_SET, DEMO_SETTINGS, SONG_TITLE } from './demoSettings.ts'

/** What was taken of the demo. */
interface DemoTaken {
  /** The tune that is opened: it is arranged. */
  readonly first: string
  /** The tunes that are new on the shelf; those that were there already stay as they are. */
  readonly fresh: readonly string[]
  /** How many tunes are new, the song among them. */
  readonly count: number
  /** The song of the demo, which comes a moment later; none where it is there already. */
  readonly song: Promise<readonly string[]>
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
  const fresh = await asSet(tunes)
  const onShelf = [...there, ...tunes].map(({ title, id }) => [title, id] as const)
  await bringDemoStudio(new Map(onShelf), dayOf(new Date()))
  const [first] = tunes
  if (first) await arrangeDemo(first)
  const songThere = idOf(SONG_TITLE) !== undefined
  // Noted at once: a page that is opened anew goes on with them.
  comesBehind(tunes.slice(1).map(({ id }) => id))
  const song = new Promise<void>((resolve) => setTimeout(resolve, HEAD_START_MS)).then(bringRest)
  return {
    first: first?.id ?? present(idOf(DEMO_SETTINGS[0]!.title)),
    fresh,
    count: fresh.length + (songThere ? 0 : 1),
    song,
  }
}

/** The tune that is opened has the worker to itself for so long. */
const HEAD_START_MS = 1500
