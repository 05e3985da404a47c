import { setupOf, tuningById } from '@velvet-porch/core/instrument'
import type { TuneDoc } from '@velvet-porch/core/document'
import { arrangementOf } from '@velvet-porch/core/arrange'
import { comesBehind, firstAsked, hasCome } from '../../../state/arrangedBehind.ts'
import { db } from '../../../state/db.ts'
import { arrangementId } from '../../../state/shelf.ts'
import { arrangeInWorker } from '../../../workers/benchWorker.ts'
import { demoRegions, DEMO_SET, DEMO_SETTINGS } from './demoSettings.ts'

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

let atWork: Promise<void> | undefined

/** Arranges what of the demo has no tab yet, one tune after the other; the one that is opened meanwhile comes next. */
export function arrangeDemoBehind(): void {
  // What fails here is arranged when it is opened, and says then why.
  atWork ??= arrangeAll()
    .catch(() => undefined)
    .finally(() => (atWork = undefined))
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
