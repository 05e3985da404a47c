import { present } from '@velvet-porch/core/invariant'
import { setupOf, tuningById, type InstrumentKind, type TuningId } from '@velvet-porch/core/instrument'
import {
  splitRegion,
  USUAL_SCHOOL,
  withChoice,
  type Level,
  type Region,
  type School,
  type Style,
  type TuneDoc,
} from '@velvet-porch/core/document'
import { arrangementOf, wholeTune } from '@velvet-porch/core/arrange'
import { addTunes, arrangementId } from '../../state/shelf.ts'
import { takeText } from './intake.ts'
import { db } from '../../state/db.ts'
import { arrangeInWorker, readInWorker } from '../../workers/benchWorker.ts'

/** How a demo tune is set. A second part is named by the section where it starts. */
interface DemoSetting {
  readonly title: string
  readonly style: Style
  readonly level: Level
  readonly instrument?: InstrumentKind
  readonly tuning?: TuningId
  readonly capo?: number
  readonly school?: Partial<School>
  readonly then?: { readonly section: string; readonly style: Style; readonly level: Level }
}

const SETTINGS: readonly DemoSetting[] = [
  {
    title: "Lamplighter's Round",
    style: 'alternating-bass',
    level: 3,
    capo: 2,
    then: { section: 'Chorus', style: 'chord-melody', level: 3 },
  },
  { title: 'The Ferry at Dusk', style: 'arpeggio', level: 2 },
  { title: 'Cold Pump Handle', style: 'flatpicked-lead', level: 2, school: { strokes: 'alternate' } },
  { title: 'Three Spokes Short', style: 'cross-string', level: 3 },
  { title: 'Rain on the Bicycle Shop', style: 'drone', level: 3, tuning: 'dadgad' },
  { title: 'Two Chairs', style: 'melody-bass', level: 4, school: { parts: 'both' } },
  { title: 'Nightjar over the Weir', style: 'double-stops', level: 3, instrument: 'mandolin' },
  {
    title: 'Letters from the Lock House',
    style: 'picking',
    level: 3,
    then: { section: 'Chorus', style: 'strum', level: 3 },
  },
  { title: 'Freight Yard Shuffle', style: 'shuffle', level: 3 },
  { title: 'Siding at Sundown', style: 'bottleneck', level: 4, tuning: 'openG' },
]

function regionsOf(tune: TuneDoc, { style, level, school, then }: DemoSetting): Region[] {
  const whole = wholeTune(tune, style, level, school ? { ...USUAL_SCHOOL, ...school } : undefined)
  const at = then && tune.sections.find((s) => s.name === then.section)
  if (!then || !at) return whole
  return withChoice(splitRegion(tune, whole, at.measure), 1, { style: then.style, level: then.level })
}

/** What the demo is called on the shelf. */
export const DEMO_SET = 'An Evening on the Porch'

/** What was taken of the demo. */
interface DemoTaken {
  /** The tune that is opened. */
  readonly first: string
  /** How many tunes are new on the shelf; those that were there already stay as they are. */
  readonly fresh: number
}

/** Puts the demo on the shelf as one set, arranged: what of it is there already is not put there again. */
export async function takeDemo(): Promise<DemoTaken> {
  const there = await db.shelf.filter((r) => r.set === DEMO_SET && r.removedAt === undefined).toArray()
  const idOf = (title: string) => there.find((r) => r.title === title)?.id
  const { default: text } = await import('../../../../demo/tunes.abc?raw')
  const tunes = (await readInWorker(text)).flatMap((r) => (r.tune ? [r.tune] : []))
  const chosen = SETTINGS.map((setting) => ({
    setting,
    tune: present(tunes.find((t) => t.title === setting.title)),
  })).filter(({ setting }) => idOf(setting.title) === undefined)
  await addTunes(chosen.map((c) => c.tune))
  for (const { tune, setting } of chosen) {
    const kind = setting.instrument ?? 'guitar'
    const setup = setupOf(kind, tuningById(kind, setting.tuning ?? 'standard'), { fret: setting.capo ?? 0 })
    const regions = regionsOf(tune, setting)
    const reply = await arrangeInWorker({ tune, setup, regions, locks: [] }, () => undefined).reply
    if (reply.kind !== 'done') continue
    await db.arrangements.put(
      arrangementOf(arrangementId(tune.id), tune.title, tune, setup, regions, {
        layer: reply.layer,
        transposed: reply.transposed,
      }),
    )
  }
  const song = await takeSong(idOf(SONG_TITLE) !== undefined)
  const fresh = [...chosen.map((c) => c.tune), ...song]
  await db.shelf.bulkUpdate(fresh.map(({ id }) => ({ key: id, changes: { set: DEMO_SET } })))
  return { first: chosen[0]?.tune.id ?? present(idOf(SETTINGS[0]!.title)), fresh: fresh.length }
}

const SONG_TITLE = 'Willow Ferry'

/** The song of the demo: words with chords. */
async function takeSong(there: boolean): Promise<readonly TuneDoc[]> {
  if (there) return []
  const { default: text } = await import('../../../../demo/willow-ferry.cho?raw')
  return (await takeText(text)).tunes
}
