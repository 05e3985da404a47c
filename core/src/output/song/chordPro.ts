import { partKind } from '../../document/partKind.ts'
import type { SongLine } from '../../document/song.ts'
import { songByPart, timesOver } from '../../document/songByPart.ts'
import { changesOn } from '../../document/songWords.ts'
import type { ChordMark, Measure, PinnedShape, TuneDoc } from '../../document/tune.ts'
import { chordText, transposeChord } from '../../music/harmony/chordSymbol.ts'
import { transposeKey } from '../../music/pitch/key.ts'
import { nameText } from '../../music/pitch/pitch.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { isTabLine } from '../text/tabSigns.ts'

/** How a song is written down. */
export interface SongWriting {
  /** Semitones that the names of chords lie below what sounds: those of the shapes behind a capo. */
  readonly capo: number
  /** Semitones by which it sounds above the tune. */
  readonly transposed?: number
  /** The strum, as the song says it. */
  readonly strum?: string
  /**
   * For a person to read and correct: headings and facts as people write them, and no word of where the chords fall in their
   * bars, which a reader guesses then.
   */
  readonly plain?: boolean
}

/**
 * A song as ChordPro: facts, then part after part with the chords in brackets inside the words. Where each chord falls in
 * its bars stands in a directive of our own (`x_porch_bars`), as the format allows; other readers pass over it.
 */
export function writeChordPro(tune: TuneDoc, writing: SongWriting): string {
  const { capo, transposed = 0, strum, plain = false } = writing
  const { measures, tempos } = tune
  const first = measures[0]!
  const key = transposeKey(first.key, transposed - capo)
  const minor = key.mode === 'minor' ? 'm' : ''
  const mode = key.mode === 'major' || key.mode === 'minor' ? '' : ` ${key.mode}`
  const facts: readonly (readonly [string, string | number | undefined])[] = [
    ['title', oneLine(tune.title)],
    ['artist', tune.composer === undefined ? undefined : oneLine(tune.composer)],
    ['key', `${nameText(key.tonic)}${minor}${mode}`],
    ['time', `${first.metre.num}/${first.metre.den}`],
    ['tempo', tempos[0]?.stated ? tempos[0].bpm : undefined],
    ['capo', capo > 0 ? capo : undefined],
    ['comment', strum === undefined ? undefined : `Strum: ${oneLine(strum)}`],
  ]
  const head = facts.flatMap(([fact, value]) => {
    if (value === undefined) return []
    if (!plain) return [`{${fact}: ${value}}`]
    return [
      fact === 'comment' ? String(value) : `${fact.slice(0, 1).toUpperCase()}${fact.slice(1)}: ${value}`,
    ]
  })
  const flats = key.fifths < 0
  const name = ({ parsed, symbol }: ChordMark) =>
    parsed ? chordText(transposeChord(parsed, transposed - capo, flats)) : symbol
  const parts = songByPart(tune).map(({ name: heading, lines: own, from, to }) => {
    const played = own.filter((l) => l.kind === 'sung').length
    const times = played > 1 ? timesOver(measures, from, to) : 1
    if (played === 0) return writtenLines(tune, own, name, plain).join('\n')
    return partText(heading, times, writtenLines(tune, own, name, plain), plain)
  })
  const shapes = plain ? [] : (tune.pins ?? []).map(defined)
  return [[...head, ...shapes].join('\n'), ...parts].join('\n\n') + '\n'
}

/** A pinned shape: frets and fingers from the lowest string. */
const defined = ({ chord, frets, fingers }: PinnedShape): string =>
  `{define: ${oneLine(chord)} base-fret 1 frets ${[...frets]
    .reverse()
    .map((f) => f ?? 'x')
    .join(' ')} fingers ${[...fingers].reverse().join(' ')}}`

/** A part between the directives of its kind, or under its heading. */
function partText(name: string, times: number, lines: readonly string[], plain: boolean): string {
  const kind = partKind(name)
  const environment = name === '' || kind === 'other' || kind === 'intro' || kind === 'outro' ? 'part' : kind
  const label = oneLine(`${name}${times > 1 ? ` x${times}` : ''}`.trim())
  if (plain && name !== '') return [`[${label}]`, ...lines].join('\n')
  return [
    `{start_of_${environment}${label === '' ? '' : `: ${label}`}}`,
    ...lines,
    `{end_of_${environment}}`,
  ].join('\n')
}

const oneLine = (text: string) => text.replace(/[\n{}]+/g, ' ')

function writtenLines(
  tune: TuneDoc,
  lines: readonly SongLine[],
  name: (mark: ChordMark) => string,
  plain: boolean,
): string[] {
  const text: string[] = []
  for (const [i, line] of lines.entries()) {
    if (line.kind === 'remark') {
      const tab = isTabLine(line.text)
      if (tab && !isTabBefore(lines, i)) text.push('{start_of_tab}')
      text.push(tab || /^\{.*\}$/.test(line.text) ? line.text : `{comment: ${oneLine(line.text)}}`)
      if (tab && !isTabLine(lines[i + 1]?.text ?? '')) text.push('{end_of_tab}')
      continue
    }
    const measures = tune.measures.filter((m) => line.measures.includes(m.id))
    const chords = measures.map((m) =>
      tune.chords.filter((c) => c.pos.measure === m.id).sort((a, b) => a.pos.tick - b.pos.tick),
    )
    const guessed = measures.some((m) => m.provenance === 'guessed')
    const changes = changesOn(tune, line)
    const own = timesOver(
      tune.measures,
      tune.measures.indexOf(measures[0]!),
      tune.measures.indexOf(measures.at(-1)!),
    )
    const times = own > 1 ? ` (x${own})` : ''
    const inner = own === 1 && measures.some((m) => m.repeatStart || m.repeatEnd > 1)
    if (line.text === '' && !guessed && onBeats(measures, chords)) {
      const row = gridLine(measures, chords, name, inner) + (own > 1 ? ` x${own}` : '')
      text.push(...(plain ? [row] : ['{start_of_grid}', row, '{end_of_grid}']))
      continue
    }
    const written = line.text === '' ? chords.flat().map((chord) => ({ chord, at: 0 })) : changes
    if (!plain && measures.length > 0)
      text.push(barsText(measures, written.length > 0 ? chords : [], guessed))
    const who = line.singer === undefined ? '' : `${line.singer}: `
    text.push(
      who +
        bracketed(
          line.text,
          written.map(({ chord, at }) => ({ at, name: name(chord) })),
        ) +
        times,
    )
  }
  return text
}

const isTabBefore = (lines: readonly SongLine[], i: number) =>
  i > 0 && lines[i - 1]!.kind === 'remark' && isTabLine(lines[i - 1]!.text)

/** A line with its chords in brackets at their letters. */
function bracketed(text: string, chords: readonly { readonly at: number; readonly name: string }[]): string {
  let out = ''
  let from = 0
  for (const { at, name } of chords) {
    out += `${text.slice(from, at)}[${name}]`
    from = at
  }
  return out + text.slice(from)
}

/** Where the changes of a line fall: `{x_porch_bars: 4; 1 2+1/2 3}`, with `4?` for a guess. */
function barsText(
  measures: readonly Measure[],
  chords: readonly (readonly ChordMark[])[],
  guessed: boolean,
): string {
  const places = chords.flatMap((own, bar) =>
    own.map(({ pos }) => `${bar + 1}${shareText(pos.tick, measures[bar]!.length)}`),
  )
  const at = places.length > 0 ? `; ${places.join(' ')}` : ''
  return `{x_porch_bars: ${measures.length}${guessed ? '?' : ''}${at}}`
}

function shareText(tick: Ticks, length: Ticks): string {
  if (tick === 0) return ''
  let [a, b] = [tick, length]
  while (b > 0) [a, b] = [b, a % b]
  return `+${tick / a}/${length / a}`
}

/** Strokes of a bar in a grid: its beats as the metre counts them. */
const beatTicks = ({ nominal, metre }: Measure): Ticks => nominal / metre.num

const onBeats = (measures: readonly Measure[], chords: readonly (readonly ChordMark[])[]): boolean =>
  chords.every((own, i) => own.every(({ pos }) => pos.tick % beatTicks(measures[i]!) === 0)) &&
  chords.some((own) => own.length > 0)

/** `| G . . . | C . D . |`, with the signs of repeats inside it where it has some. */
function gridLine(
  measures: readonly Measure[],
  chords: readonly (readonly ChordMark[])[],
  name: (mark: ChordMark) => string,
  inner: boolean,
): string {
  const cells = measures.map((m, i) => {
    const beats = Math.max(1, Math.round(m.length / beatTicks(m)))
    return Array.from({ length: beats }, (_, b) => {
      const mark = chords[i]!.find((c) => c.pos.tick === b * beatTicks(m))
      return mark ? name(mark) : '.'
    }).join(' ')
  })
  let out = inner && measures[0]!.repeatStart ? '||:' : '|'
  for (const [i, cell] of cells.entries()) {
    const [now, next] = [measures[i]!, measures[i + 1]]
    const ends = inner && now.repeatEnd > 1
    const count = ends && now.repeatEnd > 2 ? ` x${now.repeatEnd}` : ''
    const begins = inner && next?.repeatStart
    out += ` ${cell} ${ends ? `:||${count}` : ''}${begins ? (ends ? ' ||:' : '||:') : ends ? '' : '|'}`
  }
  return out
}
