import { setupOf, tuningById } from '@velvet-porch/core/instrument'
import type { TuneDoc } from '@velvet-porch/core/document'
import { arrangementOf } from '@velvet-porch/core/arrange'
import { comesBehind, firstAsked, hasCome } from '../../../state/arrangedBehind.ts'
import { db } from '../../../state/db.ts'
import { arrangementId } from '../../../state/shelf.ts'
import { arrangeInWorker } from '../../../workers/benchWorker.ts'
import { demoRegions, DEMO_SET, DEMO_SETTINGS, SONG_TITLE } from './demoSettings.ts'

/** Arranges a tune of the demo as it is set there; one that has a tab by then keeps it. */
export async function arrangeDemo(tune: TuneDoc): Promise<void> {
  const setting = DEMO_SETTINGS.find((s) => s.title === tune.title)
  if (!setting) return
  const kind = setting.instrument ?? 'guitar'
  const setup = setupOf(kind, tuningById(kind, setting.tuning ?? 'standard'), { fret: setting.capo ?? 0 })
  const regions = demoRegions(tune, setting)
  const reply = await arrangeInWorker({ tune, setup, regions, locks: [] }, () => undefined).reply
  if (reply.kind !== 'done') return
  const made = arrangementOf(arrangementId(tune.id), tune.title, tune, setup, regions, reply)
  await db.transaction('rw', db.arrangements, async () => {
    if (!(await db.arrangements.get(made.id))) await db.arrangements.add(made)
  })
}

/** Tunes of the demo that have no tab yet. */
async function withoutTab(): Promise<string[]> {
  const rows = await db.shelf.filter((r) => r.set === DEMO_SET && r.removedAt === undefined).toArray()
  const set = rows.filter((r) => DEMO_SETTINGS.some((s) => s.title === r.title)).map((r) => r.id)
  const tabs = await db.arrangements.bulkGet(set.map(arrangementId))
  return set.filter((_, i) => tabs[i] === undefined)
}

/** Marks tunes on the shelf as those of the demo; gives their ids. */
export async function asSet(tunes: readonly TuneDoc[]): Promise<string[]> {
  await db.shelf.bulkUpdate(tunes.map(({ id }) => ({ key: id, changes: { set: DEMO_SET } })))
  return tunes.map(({ id }) => id)
}

/** Takes the song of the demo, where it is not on the shelf. */
async function takeSong(): Promise<string[]> {
  const there = await db.shelf.filter((r) => r.set === DEMO_SET && r.title === SONG_TITLE).toArray()
  if (there.some((r) => r.removedAt === undefined)) return []
  const { default: text } = await import('../../../../../demo/willow-ferry.cho?raw')
  const { takeText } = await import('../intake.ts')
  return asSet((await takeText(text)).tunes)
}

let atWork: Promise<void> | undefined

/**
 * Brings what of the demo is not there yet: its song, then the tabs of its tunes one after the other; the one that is
 * opened meanwhile comes next.
 * @returns the ids of what is new on the shelf, as soon as it stands there
 */
export function bringRest(): Promise<readonly string[]> {
  // Whoever opens one of them from now on waits for its tab.
  const song = withoutTab().then(comesBehind).then(takeSong)
  // What fails here is arranged when it is opened, and says then why.
  atWork ??= song
    .catch(() => [])
    .then(arrangeAll)
    .catch(() => undefined)
    .finally(() => {
      atWork = undefined
      comesBehind([])
    })
  return song
}

async function arrangeAll(): Promise<void> {
  comesBehind(await withoutTab())
  for (let id = firstAsked(); id !== undefined; id = firstAsked()) {
    try {
      const tune = await db.tunes.get(id)
      if (tune) await arrangeDemo(tune)
    } finally {
      hasCome(id)
    }
  }
}
