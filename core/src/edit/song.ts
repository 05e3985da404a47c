import { present } from '../invariant.ts'
import { alignIds } from '../document/align.ts'
import type { Id } from '../document/ids.ts'
import { LIMITS } from '../document/limits.ts'
import type { Score } from '../document/score.ts'
import type { SongLine } from '../document/song.ts'
import { changesInBars, measuresOfLine } from '../document/lineBars.ts'
import { songByPart } from '../document/songByPart.ts'
import { lettersAt } from '../document/songWords.ts'
import type { ChordMark, Measure, TuneDoc } from '../document/tune.ts'
import { readSong } from '../input/song/readingSong.ts'
import { laidOnBars, MOST_BARS } from '../input/song/songBars.ts'
import { tuneOfSong } from '../input/song/songTune.ts'
import { timedAs } from '../input/song/timedAs.ts'
import { beatStarts } from '../music/time/metre.ts'
import { done, refused, type Edited, type SongEdit } from './edited.ts'
import { orderIn, spliced, emptyMeasures, without } from './measures.ts'

/** Changes the words of a song, the bars of its lines, and the beats of its changes. */
export function editSong(score: Score, edit: SongEdit): Edited {
  const { tune } = score
  if (!tune.song) return refused('noSong')
  switch (edit.do) {
    case 'lineBars':
      return withBars(score, [edit.line], edit.bars)
    case 'everyLine': {
      const open = tune.song.lines.filter((l) => l.kind === 'sung' && isGuessed(tune, l))
      return withBars(
        score,
        open.map((l) => l.id),
        edit.bars,
        'guessed',
      )
    }
    case 'confirmBars': {
      const measures = tune.measures.map(confirmed)
      return done({ ...score, tune: { ...tune, measures } })
    }
    case 'moveChange':
      return withChangeAt(score, edit)
    case 'lineTimes':
      return withTimes(score, edit)
    case 'songText':
      return withSongText(score, edit.text, edit.capo)
  }
}

const confirmed = (m: Measure): Measure => (m.provenance === 'guessed' ? { ...m, provenance: 'choice' } : m)

const isGuessed = (tune: TuneDoc, line: SongLine) =>
  measuresOfLine(tune, line).some((m) => m.provenance === 'guessed')

/** Lines that take so many bars; their chords are laid on them anew. */
function withBars(
  score: Score,
  lines: readonly Id[],
  bars: number,
  provenance: Measure['provenance'] = 'choice',
): Edited {
  if (!Number.isInteger(bars) || bars < 1 || bars > MOST_BARS)
    return refused('barsOfLine', { most: MOST_BARS })
  let now = score
  for (const id of lines) {
    const line = now.tune.song?.lines.find((l) => l.id === id && l.kind === 'sung')
    if (!line || measuresOfLine(now.tune, line).length === 0) return refused('noSuchLine')
    const sized = sizedTo(now, line, bars)
    if (!sized) return refused('notesInBars')
    const laid = relaid(sized, id)
    now = withProvenance(provenance === 'guessed' ? laid : withOwnChanges(laid, id), id, provenance)
  }
  return done(now)
}

/** A line with so many measures: added at its end, or taken off there; undefined where notes stand in what would go. */
function sizedTo(score: Score, line: SongLine, bars: number): Score | undefined {
  const { tune } = score
  const own = measuresOfLine(tune, line)
  const last = own.at(-1)!
  const at = tune.measures.indexOf(last)
  const more = bars - own.length
  if (more === 0) return score
  const { repeatEnd, barline, endings } = last
  const ends = { repeatEnd, barline, endings }
  if (more > 0) {
    const clip = emptyMeasures(tune, at + 1, more)
    const grown = spliced(score, at + 1, clip)
    const added = clip.measures.map((m) => m.id)
    return withSigns(
      withMeasures(grown, line.id, [...own.map((m) => m.id), ...added]),
      last.id,
      added.at(-1)!,
      ends,
    )
  }
  const gone = own.slice(more)
  const ids = new Set(gone.map((m) => m.id))
  if (tune.events.some((e) => e.pitch && ids.has(e.pos.measure))) return undefined
  const kept = own.slice(0, more)
  // The changes of what goes stand at the end of what stays, in their order, until they are laid anew.
  const chords = tune.chords.map((c): ChordMark =>
    ids.has(c.pos.measure) ? { ...c, pos: { measure: kept.at(-1)!.id, tick: kept.at(-1)!.length - 1 } } : c,
  )
  const shrunk = without({ ...score, tune: { ...tune, chords } }, at + more + 1, at)
  return withSigns(
    withMeasures(
      shrunk,
      line.id,
      kept.map((m) => m.id),
    ),
    undefined,
    kept.at(-1)!.id,
    ends,
  )
}

function withMeasures(score: Score, line: Id, measures: readonly Id[]): Score {
  const { tune } = score
  const last = measures.slice(-1)
  const now = new Set(tune.measures.map((m) => m.id))
  // A remark under a measure that is gone stands under the last one of its line.
  const lines = present(tune.song).lines.map((l) =>
    l.id === line
      ? { ...l, measures }
      : l.kind === 'remark' && l.measures.some((id) => !now.has(id))
        ? { ...l, measures: last }
        : l,
  )
  return { ...score, tune: { ...tune, song: { lines } } }
}

/** The signs at the end of a line go with its last measure. */
function withSigns(
  score: Score,
  from: Id | undefined,
  to: Id,
  ends: Pick<Measure, 'repeatEnd' | 'barline' | 'endings'>,
): Score {
  const { tune } = score
  const measures = tune.measures.map((m): Measure => {
    if (m.id === to) return { ...m, ...ends, barline: m.barline === 'final' ? 'final' : ends.barline }
    return m.id === from ? { ...m, repeatEnd: 1, barline: 'single', endings: [] } : m
  })
  return { ...score, tune: { ...tune, measures } }
}

/** The chords of a line, in order. */
const marksOf = (tune: TuneDoc, line: SongLine): ChordMark[] => changesInBars(tune, line).map((c) => c.chord)

/** A line before this one with the same chords over as many bars, whose changes stand over its words. */
function modelOf(tune: TuneDoc, line: SongLine): SongLine | undefined {
  const symbols = (l: SongLine) =>
    marksOf(tune, l)
      .map((c) => c.symbol)
      .join(' ')
  const lines = present(tune.song).lines
  return lines
    .slice(0, lines.indexOf(line))
    .find((l) => l.changes && l.measures.length === line.measures.length && symbols(l) === symbols(line))
}

/** The changes of a line laid on its bars anew; words without changes of their own follow the line that they took them from. */
function relaid(score: Score, id: Id): Score {
  const { tune } = score
  const line = present(present(tune.song).lines.find((l) => l.id === id))
  const own = measuresOfLine(tune, line)
  const letters = line.text.length
  const marks = marksOf(tune, line)
  const model = line.changes ? undefined : modelOf(tune, line)
  const written = marks.map((c, i) => ({
    at: line.changes?.[i] ?? Math.round((i / marks.length) * letters),
    symbol: c.symbol,
  }))
  const places = model
    ? changesInBars(tune, model)
    : laidOnBars(written, letters, own.length, beatStarts(own[0]!.metre).length)
  return withPlaces(score, id, places)
}

/** A line with its changes at some places of its bars. */
function withPlaces(
  score: Score,
  id: Id,
  places: readonly { readonly bar: number; readonly share: number }[],
): Score {
  const { tune } = score
  const line = present(present(tune.song).lines.find((l) => l.id === id))
  const own = measuresOfLine(tune, line)
  const moved = new Map(
    marksOf(tune, line).map((c, i) => {
      const { bar, share } = places[i]!
      const measure = own[bar]!
      return [c.id, { measure: measure.id, tick: Math.round(share * measure.length) }]
    }),
  )
  const chords = tune.chords
    .map((c) => ({ ...c, pos: moved.get(c.id) ?? c.pos }))
    .sort(orderIn(tune.measures))
  return { ...score, tune: { ...tune, chords } }
}

/**
 * A line that goes its own way: the changes that it took from another one stand over its words from now on, and so in all its
 * part, since a part takes the chords of another one as a whole.
 */
function withOwnChanges(score: Score, id: Id): Score {
  const { tune } = score
  const { lines } = present(tune.song)
  const line = present(lines.find((l) => l.id === id))
  if (line.changes) return score
  const part = new Set(songByPart(tune).find((p) => p.lines.includes(line))?.lines)
  const own = lines.map((l): SongLine => {
    if (l.changes || l.text === '' || !part.has(l)) return l
    const marks = marksOf(tune, l)
    return marks.length === 0 ? l : { ...l, changes: lettersAt(tune, l, marks) }
  })
  return { ...score, tune: { ...tune, song: { lines: own } } }
}

function withProvenance(score: Score, id: Id, provenance: Measure['provenance']): Score {
  const { tune } = score
  const line = present(present(tune.song).lines.find((l) => l.id === id))
  const own = new Set(line.measures)
  return {
    ...score,
    tune: { ...tune, measures: tune.measures.map((m) => (own.has(m.id) ? { ...m, provenance } : m)) },
  }
}

/** A change of a line at another moment of it; never past the changes before and after it. */
function withChangeAt(
  score: Score,
  { line: id, chord, bar, share }: Extract<SongEdit, { do: 'moveChange' }>,
): Edited {
  const { tune } = score
  const line = present(tune.song).lines.find((l) => l.id === id)
  const own = line ? measuresOfLine(tune, line) : []
  const measure = own[bar]
  if (!line || !measure || share < 0 || share >= 1) return refused('noSuchLine')
  const order = orderIn(tune.measures)
  const marks = marksOf(tune, line)
  const at = marks.findIndex((c) => c.id === chord)
  if (at < 0) return refused('noSuchLine')
  const pos = { measure: measure.id, tick: Math.round(share * measure.length) }
  const [before, after] = [marks[at - 1], marks[at + 1]]
  if ((before && order({ pos }, before) <= 0) || (after && order({ pos }, after) >= 0))
    return refused('changeOrder')
  const chords = tune.chords.map((c) => (c.id === chord ? { ...c, pos } : c)).sort(order)
  return done(withProvenance(withOwnChanges({ ...score, tune: { ...tune, chords } }, id), id, 'choice'))
}

/** A line with all its changes where they are said to fall. */
function withTimes(
  score: Score,
  { line: id, bars, changes }: Extract<SongEdit, { do: 'lineTimes' }>,
): Edited {
  const sized = withBars(score, [id], bars)
  if (!sized.ok) return sized
  const { tune } = sized.score
  const line = present(tune.song).lines.find((l) => l.id === id)
  const own = line ? measuresOfLine(tune, line) : []
  const marks = line ? marksOf(tune, line) : []
  const rising = changes.every((c, i) => {
    const before = changes[i - 1]
    return !before || c.bar + c.share > before.bar + before.share
  })
  const inside = changes.every((c) => own[c.bar] !== undefined && c.share >= 0 && c.share < 1)
  if (changes.length !== marks.length || !rising || !inside) return refused('noSuchLine')
  return done(withPlaces(sized.score, id, changes))
}

/**
 * A song as its text now tells it. Lines that stay keep their bars and beats, measures that stay their ids and their notes.
 */
function withSongText(score: Score, text: string, capo: number): Edited {
  const { tune } = score
  if (text.length > LIMITS.sourceText) return refused('textLong', { most: LIMITS.sourceText })
  const read = timedAs(readSong(text), tune)
  if (read.parts.every((p) => p.lines.every((l) => l.kind === 'remark'))) return refused('noSong')
  const fresh = tuneOfSong({ ...read, capo }, tune.id, { title: tune.title })
  const aligned = alignIds(tune, fresh.tune)
  const { measures, chords, sections, song } = aligned
  const now = new Set(measures.map((m) => m.id))
  // Notes that were written onto the song stay in their measures.
  const sung = new Set(tune.events.flatMap((e) => (e.pitch && now.has(e.pos.measure) ? [e.pos.measure] : [])))
  const events = [
    ...tune.events.filter((e) => sung.has(e.pos.measure)),
    ...aligned.events.filter((e) => !sung.has(e.pos.measure)),
  ].sort(orderIn(measures))
  // The first tempo is the text's; those that were set further on stay in their measures.
  const at = { measure: measures[0]!.id, tick: 0 }
  const opening = read.bpm === undefined ? { ...tune.tempos[0]!, pos: at } : aligned.tempos[0]!
  const { composer: _, ...kept } = tune
  return done({
    ...score,
    tune: {
      ...kept,
      title: read.title ?? tune.title,
      ...(read.artist ? { composer: read.artist } : {}),
      measures,
      events,
      chords,
      sections,
      tempos: [opening, ...tune.tempos.slice(1).filter((t) => now.has(t.pos.measure))],
      tuplets: tune.tuplets,
      ...(song ? { song } : {}),
    },
  })
}
