import { arrangementOf, guitarSetup, wholeTune, type Level, type Style } from '@velvet-porch/core'
import { addTunes, arrangementId } from '../store/shelf.ts'
import { db } from '../store/db.ts'
import { arrangeInWorker, readInWorker } from '../worker/benchWorker.ts'

/** How the demo tunes that come arranged are set. */
const SETTINGS: readonly { title: string; style: Style; level: Level; capo: number }[] = [
  { title: "Lamplighter's Round", style: 'alternating-bass', level: 3, capo: 2 },
  { title: 'The Ferry at Dusk', style: 'melody-bass', level: 2, capo: 0 },
]

/** Puts the demo song and the demo waltz on the shelf, arranged; returns the song's id. */
export async function takeDemo(): Promise<string> {
  const { default: text } = await import('../../../demo/tunes.abc?raw')
  const tunes = (await readInWorker(text)).flatMap((r) => (r.tune ? [r.tune] : []))
  const chosen = SETTINGS.map((s) => ({ ...s, tune: tunes.find((t) => t.title === s.title)! }))
  await addTunes(chosen.map((c) => c.tune))
  for (const { tune, style, level, capo } of chosen) {
    const setup = guitarSetup(capo)
    const regions = wholeTune(tune, style, level)
    const reply = await arrangeInWorker(tune, setup, regions, () => undefined).reply

    if (reply.kind !== 'done') continue
    await db.arrangements.put(
      arrangementOf(arrangementId(tune.id), tune.title, tune, setup, regions, {
        layer: reply.layer,
        transposed: reply.transposed,
      }),
    )
  }
  return chosen[0]!.tune.id
}
