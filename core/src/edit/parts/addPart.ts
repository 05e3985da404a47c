import type { Region } from '../../document/arrangement.ts'
import { styleRules } from '../../arrange/plan/styleRules.ts'
import { isSolo } from '../../document/style.ts'
import type { Instrument } from '../../instrument/instrument.ts'
import { knownIn } from '../../invariant.ts'
import { regionAt, splitRegion, tidyRegions } from '../../document/regions.ts'
import type { Measure, TuneDoc } from '../../document/tune.ts'
import { applyEdit } from '../applyEdit.ts'
import { clipOf, unmarked, withFreshIds, type Clip } from '../clip.ts'
import type { MeasureEdit } from '../edited.ts'
import { freshIds } from '../freshIds.ts'
import { restsFor } from '../melodyMeasure.ts'
import { emptyMeasures, spliced } from '../measures.ts'
import { tonicChord, turnaround, type TimedChord } from './turnaround.ts'

/** A part that a teacher adds to a tune: what leads in, what leads back, what says the end once more. */
export type AddedPart =
  | { readonly kind: 'intro'; readonly from: 'phrase' | 'pedal' | 'turnaround' }
  /** Before a measure; without one, at the end, with the tune once more after it. */
  | { readonly kind: 'turnaround'; readonly before?: number }
  | { readonly kind: 'tag' }

/** What the parts are called on the page. */
export interface PartNames {
  readonly intro: string
  readonly turnaround: string
  readonly again: string
  readonly tag: string
}

/** A tune with the sections of its arrangement. */
export interface SectionedTune {
  readonly tune: TuneDoc
  readonly regions: readonly Region[]
}

/** Measures of a phrase that leads in: of a tune of so many and more, else half as many. A tag has half of that. */
const PHRASE = 4
const LONG_TUNE = 12

/** Measures on the pedal. */
const PEDAL = 2

const phraseOf = ({ measures }: TuneDoc) => (measures.length >= LONG_TUNE ? PHRASE : PHRASE / 2)

/**
 * A tune with a part of its own before, in or after it: a section with a name, and one of the arrangement, in the style and level
 * of its neighbour, to be changed like any other. What stands in the tune keeps its ids.
 * @returns undefined where there is no such place, or the tune's signs would lead elsewhere
 */
export function addPart(
  before: SectionedTune,
  part: AddedPart,
  names: PartNames,
  instrument: Pick<Instrument, 'strings'>,
): SectionedTune | undefined {
  const added = withPart(before, part, names)
  return added && { ...added, regions: heard(added, instrument) }
}

/** A part without a tune, in a style that plays nothing but the tune, is accompanied instead. */
function heard({ tune, regions }: SectionedTune, instrument: Pick<Instrument, 'strings'>): Region[] {
  const sung = new Set(tune.events.flatMap((e) => (e.pitch && e.voice === 0 ? [e.pos.measure] : [])))
  const at = new Map(tune.measures.map((m, i) => [m.id, i]))
  return regions.map((region) => {
    const own = tune.measures.slice(knownIn(at, region.from), knownIn(at, region.to) + 1)
    if (!isSolo(region.style) || region.given || own.some((m) => sung.has(m.id))) return region
    const { bass, fill, strums, chord } = styleRules(region.style, region.level, instrument)
    return bass === 'none' && !fill && !strums && !chord ? { ...region, style: 'picking' } : region
  })
}

function withPart(before: SectionedTune, part: AddedPart, names: PartNames): SectionedTune | undefined {
  const { tune } = before
  const { length } = tune.measures
  switch (part.kind) {
    case 'intro':
      return put(before, 0, intro(tune, part.from), names.intro)
    case 'tag':
      return length < phraseOf(tune)
        ? undefined
        : put(before, length, copied(tune, length - phraseOf(tune) / 2, length - 1), names.tag)
    case 'turnaround': {
      const at = part.before
      if (at === undefined) return onceMore(before, names)
      return at < 1 || at >= length ? undefined : put(before, at, leadingTo(tune, at), names.turnaround)
    }
  }
}

/** The tune, a turnaround, and the tune once more. */
function onceMore(before: SectionedTune, names: PartNames): SectionedTune | undefined {
  const { tune, regions } = before
  const { measures } = tune
  if (measures.some((m) => m.segno || m.coda || m.fine || m.jump)) return undefined
  const turned = put(before, measures.length, leadingTo(tune, measures.length), names.turnaround)
  const { lines: _, ...all } = clipOf({ tune }, 0, measures.length - 1)
  const clip = withFreshIds({ ...all, measures: withStart(measures) }, turned.tune)
  return put(turned, turned.tune.measures.length, clip, names.again, regions[0])
}

/** A clip put before a measure, with a section and a region of its own. */
function put(
  { tune, regions }: SectionedTune,
  before: number,
  clip: Clip,
  name: string,
  like?: Region,
): SectionedTune {
  const { length } = tune.measures
  const count = clip.measures.length
  const next = tune.measures[before]
  // What repeats from the beginning goes on doing so; what ended in the middle of a measure for a pickup ends with its measure.
  const own = before === 0 ? { ...tune, measures: withStart(tune.measures) } : tune
  const whole = before === length && own.measures.at(-1)!.repeatEnd === 1
  const ready = whole ? edited(own, { do: 'cut', measure: length - 1, ticks: 0 }) : own
  const { tune: grown } = spliced({ tune: ready }, before, clip)
  const named = edited(barred(grown, before, count), { do: 'section', measure: before, name })
  const pickup = next && next.length < next.nominal && !next.cut ? next.nominal - next.length : 0
  const last = before + count - 1
  const fitted = pickup > 0 && last > 0 ? edited(named, { do: 'cut', measure: last, ticks: pickup }) : named
  const { given: _, ...choice } = like ?? neighbour(tune, regions, before)
  const region: Region = { ...choice, from: clip.measures[0]!.id, to: clip.measures.at(-1)!.id }
  const cut = before > 0 && next ? splitRegion(tune, regions, next.id) : [...regions]
  const place = before === 0 ? 0 : next ? cut.findIndex((r) => r.from === next.id) : cut.length
  return {
    tune: fitted,
    regions: tidyRegions(fitted, [...cut.slice(0, place), region, ...cut.slice(place)]),
  }
}

const neighbour = (tune: TuneDoc, regions: readonly Region[], before: number): Region =>
  regions[regionAt(tune, regions, tune.measures[Math.max(0, before - 1)]!.id)] ?? regions[0]!

/** The tune after an edit; as it was where that cannot be. */
function edited(tune: TuneDoc, edit: MeasureEdit): TuneDoc {
  const result = applyEdit({ tune }, edit)
  return result.ok ? result.score.tune : tune
}

/** Measures whose first repeat says where it begins, where it was the beginning of the tune. */
function withStart(measures: readonly Measure[]): readonly Measure[] {
  const end = measures.findIndex((m) => m.repeatEnd > 1)
  if (end < 0 || measures.slice(0, end + 1).some((m) => m.repeatStart)) return measures
  return measures.map((m, i) => (i === 0 ? { ...m, repeatStart: true } : m))
}

/** Double bars before a part and at its end, where there are single ones. */
function barred(tune: TuneDoc, before: number, count: number): TuneDoc {
  const ends = [before - 1, before + count - 1]
  return {
    ...tune,
    measures: tune.measures.map((m, i) =>
      ends.includes(i) && m.barline === 'single' && m.repeatEnd === 1 && i < tune.measures.length - 1
        ? { ...m, barline: 'double' }
        : m,
    ),
  }
}

/** Measures of a tune once more, without its words and signs. */
function copied(tune: TuneDoc, from: number, to: number): Clip {
  const { lines: _, ...clip } = unmarked(withFreshIds(clipOf({ tune }, from, to), tune))
  return { ...clip, events: clip.events.map(({ lyric: _l, moreLyrics: _m, ...e }) => e) }
}

function intro(tune: TuneDoc, from: 'phrase' | 'pedal' | 'turnaround'): Clip {
  const { length } = tune.measures
  if (from === 'phrase') return copied(tune, Math.max(0, length - phraseOf(tune)), length - 1)
  if (from === 'turnaround') return leadingTo(tune, 0)
  const { key } = fullMeasure(tune, 0)
  return withChords(tune, 0, PEDAL, [{ measure: 0, tick: 0, ...tonicChord(tune, key) }])
}

/** A turnaround before a measure: it leads to what begins there. */
function leadingTo(tune: TuneDoc, before: number): Clip {
  const { key, metre } = fullMeasure(tune, before)
  const { measures, chords } = turnaround(tune, key, metre)
  return withChords(tune, before, measures, chords)
}

const fullMeasure = ({ measures }: TuneDoc, from: number): Measure =>
  measures.slice(Math.min(from, measures.length - 1)).find((m) => m.length >= m.nominal) ?? measures.at(-1)!

/** Measures without a melody, with chords. */
function withChords(tune: TuneDoc, before: number, count: number, chords: readonly TimedChord[]): Clip {
  const like = { ...tune, measures: [fullMeasure(tune, before), ...tune.measures] }
  const clip = emptyMeasures(like, 1, count)
  const ids = freshIds(tune)
  return {
    ...clip,
    // A rest begins with each chord: there its name stands.
    events: clip.measures.flatMap((m, i) => {
      const starts = [0, ...chords.flatMap((c) => (c.measure === i && c.tick > 0 ? [c.tick] : []))]
      return starts.flatMap((from, k) => restsFor(m.id, from, starts[k + 1] ?? m.length, ids.event))
    }),
    chords: chords.map(({ measure, tick, symbol, parsed }) => ({
      id: ids.chord(),
      pos: { measure: clip.measures[measure]!.id, tick },
      symbol,
      parsed,
      origin: 'typed' as const,
    })),
  }
}
