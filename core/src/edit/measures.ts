import { knownIn } from '../invariant.ts'
import { tidyRegions } from '../document/regions.ts'
import type { ArrangementDoc, Layer } from '../document/arrangement.ts'
import type { Id } from '../document/ids.ts'
import type { Measure, TuneDoc } from '../document/tune.ts'
import { measureLength, type Metre } from '../music/time/metre.ts'
import { USUAL_TEMPO } from '../music/time/tempo.ts'
import type { Ticks } from '../music/time/ticks.ts'
import { clipOf, unmarked, withFreshIds, type Clip } from './clip.ts'
import { done, refused, type Edited, type MeasureEdit } from './edited.ts'
import type { Score } from '../document/score.ts'
import { freshIds } from './freshIds.ts'
import { withLines } from './songLines.ts'
import { withLength } from './measureLength.ts'
import { filled, melodyIn, restsFor, withEvents, withMelodyIn } from './melodyMeasure.ts'

/** Inserts, deletes, copies and moves measures; metre, key, tempo, pickup, and measures that end early. */
export function editMeasures(
  score: Score,
  edit: Extract<
    MeasureEdit,
    { do: 'insert' | 'delete' | 'paste' | 'move' | 'metre' | 'key' | 'tempo' | 'pickup' | 'cut' }
  >,
): Edited {
  const { tune } = score
  const count = tune.measures.length
  const known = (index: number) => Number.isInteger(index) && index >= 0 && index < count
  switch (edit.do) {
    case 'insert': {
      if (edit.before < 0 || edit.before > count || edit.count < 1) return refused('noSuchMeasure')
      return done(spliced(score, edit.before, emptyMeasures(tune, edit.before, edit.count)))
    }
    case 'delete': {
      if (!known(edit.from) || !known(edit.to) || edit.to < edit.from) return refused('noSuchMeasure')
      if (edit.to - edit.from + 1 >= count) return refused('lastMeasure')
      return done(without(score, edit.from, edit.to))
    }
    case 'paste': {
      if (edit.before < 0 || edit.before > count || edit.clip.measures.length === 0)
        return refused('noSuchMeasure')
      return done(spliced(score, edit.before, unmarked(withFreshIds(edit.clip, tune))))
    }
    case 'move': {
      const { from, to, before } = edit
      if (!known(from) || !known(to) || to < from || before < 0 || before > count)
        return refused('noSuchMeasure')
      if (before >= from && before <= to + 1) return refused('samePlace')
      const clip = clipOf(score, from, to)
      const rest = without(score, from, to)
      return done(spliced(rest, before > to ? before - (to - from + 1) : before, clip))
    }
    case 'metre': {
      const metre = { num: edit.num, den: edit.den }
      const possible =
        Number.isInteger(edit.num) &&
        edit.num >= 1 &&
        edit.num <= 32 &&
        [1, 2, 4, 8, 16, 32].includes(edit.den)
      if (!known(edit.from)) return refused('noSuchMeasure')
      return possible ? done({ ...score, tune: withMetre(tune, edit.from, metre) }) : refused('metre')
    }
    case 'key': {
      if (!known(edit.from)) return refused('noSuchMeasure')
      const to = runEnd(tune, edit.from, (a, b) => a.key.fifths === b.key.fifths && a.key.mode === b.key.mode)
      const measures = tune.measures.map((m, i) => (i >= edit.from && i <= to ? { ...m, key: edit.key } : m))
      return done({ ...score, tune: { ...tune, measures } })
    }
    case 'tempo': {
      const index = tune.measures.findIndex((m) => m.id === edit.at.measure)
      if (index < 0) return refused('noSuchMeasure')
      return done({ ...score, tune: withTempo(tune, edit.at, index, edit.bpm) })
    }
    case 'pickup': {
      const first = tune.measures[0]!
      if (edit.ticks < 0 || edit.ticks >= first.nominal || count < 2) return refused('metre')
      return pickup(score, edit.ticks === 0 ? first.nominal : edit.ticks)
    }
    case 'cut': {
      const measure = tune.measures[edit.measure]
      if (!measure) return refused('noSuchMeasure')
      // The first measure is short at its beginning, as a pickup.
      if (edit.measure === 0 || edit.ticks < 0 || edit.ticks >= measure.nominal) return refused('metre')
      const length = edit.ticks === 0 ? measure.nominal : edit.ticks
      const next = withLength(tune, edit.measure, { ...measure, length })
      const kept = next.measures[edit.measure]!.length
      if (kept <= length) return done({ ...score, tune: next })
      const offer = kept < measure.nominal ? { ...edit, ticks: kept } : undefined
      return refused('cutsNotes', {}, offer)
    }
  }
}

/** Measures of rests, in metre and key of where they stand. */
export function emptyMeasures(tune: TuneDoc, before: number, count: number): Clip {
  const like = tune.measures[before - 1] ?? tune.measures[before]!
  const ids = freshIds(tune)
  const measures = Array.from({ length: count }, (): Measure => ({
    id: ids.measure(),
    nominal: measureLength(like.metre),
    length: measureLength(like.metre),
    metre: like.metre,
    key: like.key,
    repeatStart: false,
    repeatEnd: 1,
    barline: 'single',
    endings: [],
    provenance: 'choice',
  }))
  const events = measures.flatMap((m) => restsFor(m.id, 0, m.length, ids.event))
  return { measures, events, chords: [], tuplets: [], tempos: [] }
}

/** A score with a clip before a measure, or at the end; the last bar line stays the last. */
export function spliced(score: Score, before: number, clip: Clip): Score {
  const { tune, arrangement } = score
  const atEnd = before === tune.measures.length
  const last = tune.measures.at(-1)!
  const ends = atEnd && last.barline === 'final' && last.repeatEnd === 1
  const old = tune.measures.map((m): Measure => (ends && m === last ? { ...m, barline: 'single' } : m))
  const added = clip.measures.map((m, i): Measure =>
    ends && i === clip.measures.length - 1 && m.barline === 'single' ? { ...m, barline: 'final' } : m,
  )
  const measures = [...old.slice(0, before), ...added, ...old.slice(before)]
  const base = { ...tune, measures, tuplets: [...tune.tuplets, ...clip.tuplets] }
  const grown = withEvents(base, [...tune.events, ...clip.events])
  const inOrder = orderIn(measures)
  const moved = withLines(
    {
      ...grown,
      chords: [...tune.chords, ...clip.chords].sort(inOrder),
      tempos: firstTempoFirst([...tune.tempos, ...clip.tempos].sort(inOrder), measures[0]!.id),
    },
    clip.lines ?? [],
  )
  return {
    tune: moved,
    ...(arrangement
      ? { arrangement: withLayer(arrangement, moved, joined(arrangement.base, clip.layer, measures)) }
      : {}),
  }
}

/** A score without some measures, by index, inclusive. */
export function without(score: Score, from: number, to: number): Score {
  const { tune, arrangement } = score
  const gone = new Set(tune.measures.slice(from, to + 1).map((m) => m.id))
  const stays = (x: { readonly pos: { readonly measure: Id } }) => !gone.has(x.pos.measure)
  const kept = tune.measures.filter((m) => !gone.has(m.id))
  const endsNow = tune.measures.at(-1)!.barline === 'final' && to === tune.measures.length - 1
  const measures = kept.map((m, i): Measure =>
    endsNow && i === kept.length - 1 && m.barline === 'single' ? { ...m, barline: 'final' } : m,
  )
  const opening = tune.tempos[0]!
  const tempos = tune.tempos.filter(stays)
  const smaller = withEvents({ ...tune, measures }, tune.events.filter(stays))
  const next: TuneDoc = {
    ...smaller,
    chords: tune.chords.filter(stays),
    sections: tune.sections.filter((s) => !gone.has(s.measure)),
    tempos: firstTempoFirst(tempos.length > 0 ? tempos : [opening], measures[0]!.id),
  }
  if (!arrangement) return { tune: next }
  const { base } = arrangement
  const notes = base.notes.filter(stays)
  const ids = new Set(notes.map((n) => n.id))
  const layer: Layer = {
    notes,
    grips: base.grips.filter(stays),
    spans: base.spans.filter((s) => ids.has(s.from) && ids.has(s.to)),
    locks: base.locks.filter((l) => !gone.has(l.target) && !targetsGone(l.target, gone)),
  }
  return {
    tune: next,
    arrangement: {
      ...withLayer(arrangement, next, layer),
      variants: arrangement.variants.filter((v) => v.measures.every((id) => !gone.has(id))),
    },
  }
}

const targetsGone = (target: Id, gone: ReadonlySet<Id>) => [...gone].some((id) => target.includes(`.${id}.`))

/** A tune has a tempo at its first moment. */
function firstTempoFirst(tempos: readonly TuneDoc['tempos'][number][], first: Id): TuneDoc['tempos'] {
  const [head, ...rest] = tempos
  if (!head || (head.pos.measure === first && head.pos.tick === 0)) return tempos
  return [{ ...head, pos: { measure: first, tick: 0 } }, ...rest]
}

/** By the order of measures, then by tick. */
export function orderIn(measures: readonly Measure[]) {
  const indexOf = new Map(measures.map((m, i) => [m.id, i]))
  type Placed = { readonly pos: { readonly measure: Id; readonly tick: number } }
  return (a: Placed, b: Placed): number =>
    knownIn(indexOf, a.pos.measure) - knownIn(indexOf, b.pos.measure) || a.pos.tick - b.pos.tick
}

function joined(base: Layer, added: Layer | undefined, measures: readonly Measure[]): Layer {
  if (!added) return base
  const inOrder = orderIn(measures)
  return {
    notes: [...base.notes, ...added.notes].sort(inOrder),
    grips: [...base.grips, ...added.grips].sort(inOrder),
    spans: [...base.spans, ...added.spans],
    locks: [...base.locks, ...added.locks],
  }
}

/** An arrangement with another layer; its regions cover the tune's measures as they are now. */
export function withLayer(arrangement: ArrangementDoc, tune: TuneDoc, base: Layer): ArrangementDoc {
  const end = { measure: tune.measures.at(-1)!.id, tick: tune.measures.at(-1)!.length }
  const known = new Set(tune.measures.map((m) => m.id))
  const grips = base.grips.map((g, i) =>
    known.has(g.until.measure) ? g : { ...g, until: base.grips[i + 1]?.pos ?? end },
  )
  return { ...arrangement, regions: tidyRegions(tune, arrangement.regions), base: { ...base, grips } }
}

/** The last measure of a run in which each is like the one before it. */
function runEnd(tune: TuneDoc, from: number, alike: (a: Measure, b: Measure) => boolean): number {
  let to = from
  while (to + 1 < tune.measures.length && alike(tune.measures[from]!, tune.measures[to + 1]!)) to++
  return to
}

/** Another metre up to the next change. What a measure lacks is filled with rests; what it has too much stays, to be seen. */
function withMetre(tune: TuneDoc, from: number, metre: Metre): TuneDoc {
  const to = runEnd(tune, from, (a, b) => a.metre.num === b.metre.num && a.metre.den === b.metre.den)
  const nominal = measureLength(metre)
  let next = tune
  for (let i = from; i <= to; i++) {
    const measure = next.measures[i]!
    const short = measure.length < measure.nominal
    const length = short ? Math.min(measure.length, nominal) : nominal
    next = withLength(next, i, { ...measure, metre, nominal, length })
  }
  return next
}

/** The first measure shortened to a pickup or made whole: the end is kept, as a pickup ends where its measure does. */
function pickup(score: Score, length: Ticks): Edited {
  const { tune, arrangement } = score
  const first = tune.measures[0]!
  const by = length - first.length
  if (by === 0) return done(score)
  const melody = melodyIn(tune, first.id)
  if (
    by < 0 &&
    melody.some((e) => e.pos.tick < -by && (e.pitch !== undefined || e.dur.tupletId !== undefined))
  )
    return refused('pickupNotes')
  const shift = <T extends { readonly pos: { readonly measure: Id; readonly tick: number } }>(x: T): T =>
    x.pos.measure === first.id ? { ...x, pos: { ...x.pos, tick: Math.max(0, x.pos.tick + by) } } : x
  const moved = melody.filter((e) => e.pos.tick + by >= 0).map(shift)
  const measure = { ...first, length }
  const resized: TuneDoc = {
    ...tune,
    measures: [measure, ...tune.measures.slice(1)],
    chords: tune.chords.map(shift),
  }
  const next = withMelodyIn(resized, first.id, filled(moved, measure, freshIds(tune).event))
  if (!arrangement) return done({ tune: next })
  const { base } = arrangement
  const layer = { ...base, notes: base.notes.map(shift), grips: base.grips.map(shift) }
  return done({ tune: next, arrangement: withLayer(arrangement, next, layer) })
}

/** A tempo from a moment on; undefined takes the mark away (the first one falls back to the usual). */
function withTempo(
  tune: TuneDoc,
  at: { measure: Id; tick: number },
  index: number,
  bpm: number | undefined,
): TuneDoc {
  const isFirst = index === 0 && at.tick === 0
  const others = tune.tempos.filter((t) => t.pos.measure !== at.measure || t.pos.tick !== at.tick)
  const mark =
    bpm === undefined
      ? isFirst
        ? [{ pos: at, bpm: USUAL_TEMPO, stated: false }]
        : []
      : [{ pos: at, bpm, stated: true }]
  return { ...tune, tempos: [...others, ...mark].sort(orderIn(tune.measures)) }
}
