import { message } from '../../messages/message.ts'
import type { NoteNaming } from '../../music/pitch/noteNaming.ts'
import { timesOf } from '../times.ts'
import type { Problem } from '../problem.ts'
import { bracketedLine } from './bracketedLine.ts'
import { isChordRow, isGridRow, namingOfChords, rowWords, isBarSign, isGoingOn } from './chordRow.ts'
import { directiveIn, OF_THE_PAGE } from './directive.ts'
import { gridRow } from './gridRow.ts'
import { partKind, type PartKind } from '../../document/partKind.ts'
import { present } from '../../invariant.ts'
import { partHeadIn, type PartHead } from '../partHeads.ts'
import type { ReadSong, WrittenChord, WrittenLine, WrittenPart } from './readSong.ts'
import { namedParts } from './namedParts.ts'
import { statedBars, type StatedBars } from './statedBars.ts'
import { singersIn } from './singers.ts'
import { takeFact, takeFactLine, type HeadFacts } from '../headFacts.ts'
import { plainSongText } from './songText.ts'

/** A line that is a string of a tab. */
const TAB_LINE = /^\s*(?:[A-Ga-g][#b]?)?\s*[|:]?-[-\d|hpbrx/\\~().:]{5,}/

/** What can stand on a line of its own to say that what stands before it comes again. */
const ALONE_AGAIN = /^[([]\s*(?:repeat|bis)\s*[)\]]$/i

interface PartDraft {
  kind: PartKind
  name: string
  lines: WrittenLine[]
  times: number
  recalled: boolean
  line: number
}

/** True for a text with chords over or in words, or between bar lines, or with directives of a song. */
export function looksLikeSong(text: string): boolean {
  const lines = plainSongText(text).split('\n')
  const naming = namingOfChords(lines)
  return (
    lines.some((l) => isChordRow(l, naming) && !TAB_LINE.test(l)) ||
    lines.some((l) => bracketedLine(l, naming) !== undefined) ||
    lines.some((l) => /^(?:title|start_of_|comment|chorus$)/.test(directiveIn(l)?.name ?? ''))
  )
}

/** How many rows of chords stand over words. */
export function chordsOverWords(text: string): number {
  const lines = plainSongText(text).split('\n')
  const naming = namingOfChords(lines)
  return lines.filter((line, i) => {
    const under = lines[i + 1] ?? ''
    const isRow = (l: string) => isChordRow(l, naming) || TAB_LINE.test(l)
    return isChordRow(line, naming) && /[A-Za-zÀ-ÿ]{2}/.test(under) && !isRow(under)
  }).length
}

/** Songs of a text: a directive parts them. Each with the number of lines before it. */
export function songsIn(text: string): { readonly text: string; readonly lineOffset: number }[] {
  const lines = plainSongText(text).split('\n')
  const starts = [0, ...lines.flatMap((l, i) => (directiveIn(l)?.name === 'new_song' && i > 0 ? [i] : []))]
  return starts
    .map((from, i) => ({ text: lines.slice(from, starts[i + 1]).join('\n'), lineOffset: from }))
    .filter((s) => s.text.trim() !== '')
}

/**
 * Reads a song as teachers have it: chords over words, chords in brackets inside the words, ChordPro, grids of chords
 * between bar lines, mixed. What is not understood is kept as a remark, and said.
 */
export function readSong(text: string, lineOffset = 0): ReadSong {
  const lines = singleSpaced(plainSongText(text).split('\n'))
  const texts = lines.map((l) => l.text)
  return new SongReader(
    texts,
    namingOfChords(texts),
    lines.map((l) => l.line + lineOffset),
  ).read()
}

/** Lines with their numbers, from 1; where an empty line stands between all others, each of them is left out once. */
function singleSpaced(lines: readonly string[]): { readonly text: string; readonly line: number }[] {
  const numbered = lines.map((text, i) => ({ text, line: i + 1 }))
  const filled = lines.flatMap((l, i) => (l.trim() === '' ? [] : [i]))
  const apart = filled.every((at, i) => i === 0 || at - filled[i - 1]! > 1)
  if (!apart || filled.length < 4) return numbered
  return numbered.filter(({ text }, i) => text.trim() !== '' || lines[i - 1]?.trim() === '')
}

/** Goes through the lines of one song. */
class SongReader {
  private readonly facts: HeadFacts = {}
  private readonly problems: Problem[] = []
  private readonly parts: PartDraft[] = []
  private readonly singers: ReadonlySet<string>
  private readonly lines: readonly string[]
  private readonly naming: NoteNaming
  private readonly numbers: readonly number[]
  /** The chords of the bars so far, for `%`. */
  private readonly bars: WrittenChord[][] = []
  private part: PartDraft | undefined
  /** What a directive has opened. */
  private inside: 'tab' | 'grid' | undefined
  /** True once chords, words or a heading stood there. */
  private begun = false
  private gap = false
  /** Words at the top that may be the title. */
  private topLine: { readonly text: string; readonly line: number } | undefined
  /** What was said of the bars of the line that follows. */
  private stated: StatedBars | undefined

  /** @param numbers the number of each line in the text */
  constructor(lines: readonly string[], naming: NoteNaming, numbers: readonly number[]) {
    this.lines = lines
    this.naming = naming
    this.numbers = numbers
    this.singers = singersIn(lines)
  }

  private numberOf(i: number): number {
    return this.numbers[i] ?? 1
  }

  read(): ReadSong {
    for (let i = 0; i < this.lines.length;) i += this.take(i)
    this.settleTitle()
    const { capo = 0, ...facts } = this.facts
    const parts = this.parts
      .filter((p) => p.lines.length > 0 || p.recalled)
      .map(({ recalled, ...p }): WrittenPart => ({ ...p, ...(recalled ? { recalled } : {}) }))
    return { ...facts, capo, parts: namedParts(parts), problems: this.problems }
  }

  /** The line at the top is the title, unless the song says another one: then it is a remark. */
  private settleTitle(): void {
    const { topLine } = this
    if (!topLine) return
    if (this.facts.title === undefined) {
      const [title = topLine.text, artist] = topLine.text.split(/\s+(?:[-–—]|by)\s+/)
      this.facts.title = title.trim()
      if (artist) takeFact(this.facts, 'artist', artist)
      return
    }
    const first = this.parts[0] ?? this.open('verse', '', 0)
    first.lines.unshift({ kind: 'remark', text: topLine.text, chords: [], times: 1, line: topLine.line })
  }

  /** Takes what stands at a line; how many lines that was. */
  private take(i: number): number {
    const line = this.unnumbered(i)
    const directive = directiveIn(line)
    if (directive) {
      this.direct(directive.name, directive.value, i)
      return 1
    }
    if (this.inside === 'tab') {
      this.add({ kind: 'remark', text: line }, i)
      return 1
    }
    if (line.trim() === '') {
      this.gap = this.begun
      return 1
    }
    if (this.inside === 'grid' || isGridRow(line, this.naming)) return this.row(i, line, true)
    if (TAB_LINE.test(line)) {
      this.note(i, 'note', message('reading.songTab'))
      let to = i
      while (TAB_LINE.test(this.lines[to] ?? '')) this.add({ kind: 'remark', text: this.lines[to]! }, to++)
      return to - i
    }
    const bracketed = bracketedLine(line, this.naming)
    const head = bracketed ? undefined : partHeadIn(line)
    if (head) {
      this.headed(head, i)
      if (head.rest) this.rest(head.rest, i)
      return 1
    }
    if (isChordRow(line, this.naming)) return this.row(i, line, false)
    if (bracketed) {
      this.sung(bracketed.text, bracketed.chords, i)
      return 1
    }
    if (this.counted(line)) return 1
    const number = /^\s*(\d{1,2})[.)]\s*$/.exec(line)
    if (number) {
      this.open('verse', `Verse ${number[1]!}`, i)
      return 1
    }
    if (/^\s*#/.test(line) && this.lines.some((l) => directiveIn(l))) return 1
    if (takeFactLine(this.facts, line)) return 1
    if (/^\s*(?:https?:|www\.)\S+\s*$/.test(line)) {
      this.note(i, 'note', message('reading.songRemark', { text: line.trim().slice(0, 60) }))
      if (this.begun) this.add({ kind: 'remark', text: line.trim() }, i)
      return 1
    }
    if (!this.begun && this.heading(line, i)) return 1
    this.sung(line, [], i)
    return 1
  }

  /** A line of chords without what stands before them: the number of a verse, which begins it, or who sings. */
  private unnumbered(i: number): string {
    const line = this.lines[i]!
    const before = /^\s*(?:(\d{1,2})[.)]|\(?([\p{L}][\p{L}\d.&+ ]{0,20}?)\)?:)\s+/u.exec(line)
    if (!before) return line
    const rest = ' '.repeat(before[0].length) + line.slice(before[0].length)
    if (!isChordRow(rest, this.naming) && !isGridRow(rest, this.naming)) return line
    if (before[2] !== undefined) return this.singers.has(before[2]) ? rest : line
    this.open('verse', `Verse ${before[1]!}`, i)
    // Words that begin at the margin were written under chords without their number.
    const margin = /^\S/.test(this.lines[i + 1] ?? '') && !/^\d/.test(this.lines[i + 1] ?? '')
    return margin ? line.slice(before[0].length) : rest
  }

  /** A line of chords, with the words under it. */
  private row(i: number, line: string, grid: boolean): number {
    const under = this.lines[i + 1] ?? ''
    const worded = !this.inside && this.isWords(under)
    const indent = worded ? under.length - under.trimStart().length : 0
    const words = rowWords(line, this.naming)
    if (grid) {
      const { chords, bars, repeats, times } = gridRow(line, this.naming, this.bars)
      this.begin(i)
      this.line({
        kind: 'sung',
        text: worded ? under.trim() : '',
        chords: chords.map((c) => ({ ...c, at: worded ? Math.max(0, c.at - indent) : 0 })),
        bars,
        ...(repeats.length > 0 ? { repeats } : {}),
        times,
        line: this.numberOf(i),
      })
      for (let b = 0; b < bars; b++) this.bars.push(chords.filter((c) => c.bar === b))
      return worded ? 2 : 1
    }
    const times = words.map((w) => timesOf(w.text)).find((n) => n !== undefined) ?? 1
    const chords = words
      .filter(({ text }) => !isBarSign(text) && !isGoingOn(text) && timesOf(text) === undefined)
      .map(({ text, at }): WrittenChord => ({ at: Math.max(0, at - indent), symbol: text }))
    this.sung(worded ? under.trim() : '', chords, i, times)
    return worded ? 2 : 1
  }

  /** What stands behind a heading on its own line: chords, or words. */
  private rest(text: string, i: number): void {
    if (isGridRow(text, this.naming)) {
      const { chords, bars, repeats, times } = gridRow(text, this.naming, this.bars)
      this.line({
        kind: 'sung',
        text: '',
        chords: chords.map((c) => ({ ...c, at: 0 })),
        bars,
        ...(repeats.length > 0 ? { repeats } : {}),
        times,
        line: this.numberOf(i),
      })
    } else if (isChordRow(text, this.naming)) {
      const words = rowWords(text, this.naming)
      const times = words.map((w) => timesOf(w.text)).find((n) => n !== undefined) ?? 1
      const chords = words
        .filter((w) => !isBarSign(w.text) && !isGoingOn(w.text) && timesOf(w.text) === undefined)
        .map((w): WrittenChord => ({ at: 0, symbol: w.text }))
      this.sung('', chords, i, times)
    } else {
      const bracketed = bracketedLine(text, this.naming)
      this.sung(bracketed?.text ?? text, bracketed?.chords ?? [], i)
    }
  }

  private isWords(line: string): boolean {
    return (
      line.trim() !== '' &&
      !directiveIn(line) &&
      !isChordRow(line, this.naming) &&
      !isGridRow(line, this.naming) &&
      !TAB_LINE.test(line) &&
      !bracketedLine(line, this.naming) &&
      !partHeadIn(line) &&
      !ALONE_AGAIN.test(line.trim()) &&
      timesOf(line.trim()) === undefined
    )
  }

  /** A heading opens its part; one that calls for a part which stands elsewhere opens nothing. */
  private headed(head: PartHead, i: number): void {
    const known = this.parts.some((p) => p.kind === head.kind && p.name === head.name && p.lines.length > 0)
    const bare = (this.lines[i + 1] ?? '').trim() === '' && known && head.kind === 'chorus'
    const again = !head.rest && (head.again || bare || !this.hasLinesBelow(i))
    this.open(head.kind, head.name, i, head.times, again)
    if (again) this.part = undefined
  }

  /** True where words or chords stand between this heading and the next one. */
  private hasLinesBelow(i: number): boolean {
    for (let k = i + 1; k < this.lines.length; k++) {
      const line = this.lines[k]!
      if (line.trim() === '') continue
      const directive = directiveIn(line)
      if (directive) {
        if (/^start_of_(?:grid|tab)$/.test(directive.name)) return true
        if (/^(?:start_of_|end_of_|chorus)/.test(directive.name)) return false
        continue
      }
      return (
        bracketedLine(line, this.naming) !== undefined || isChordRow(line, this.naming) || !partHeadIn(line)
      )
    }
    return false
  }

  private direct(name: string, value: string, i: number): void {
    const environment = /^(start|end)_of_(\w+)$/.exec(name)
    if (environment) {
      const [, what, kind] = environment as unknown as [string, 'start' | 'end', string]
      if (kind === 'tab' || kind === 'grid') this.inside = what === 'start' ? kind : undefined
      if (what === 'start' && kind === 'tab') this.note(i, 'note', message('reading.songTab'))
      if (what === 'end') {
        if (kind !== 'tab' && kind !== 'grid') this.part = undefined
      } else if (kind !== 'tab' || this.part === undefined) {
        this.environment(kind, value, i)
      }
      return
    }
    if (name === 'chorus') {
      const head = value === '' ? undefined : partHeadIn(value)
      this.open('chorus', head?.name ?? (value === '' ? 'Chorus' : value), i, head?.times ?? 1, true)
      this.part = undefined
      return
    }
    if (name === 'x_porch_bars') {
      this.stated = statedBars(value)
      return
    }
    if (name === 'new_song' || OF_THE_PAGE.test(name)) return
    if (name === 'comment') {
      const head = partHeadIn(value)
      if (head && !head.rest) this.headed(head, i)
      else if (!takeFactLine(this.facts, value) && !this.counted(value))
        this.add({ kind: 'remark', text: value }, i)
      return
    }
    const [first = '', ...more] = value.split(/\s+/)
    const taken =
      name === 'meta'
        ? takeFact(this.facts, first.toLowerCase(), more.join(' '))
        : takeFact(this.facts, name, value)
    if (taken || /^(?:sorttitle|album|year|copyright|duration|arranger|tag)$/.test(name)) return
    this.note(i, 'warning', message('reading.songDirective', { directive: this.lines[i]!.trim() }))
    this.add({ kind: 'remark', text: this.lines[i]!.trim() }, i)
  }

  /** A part that a directive opens; a grid inside another part opens none. */
  private environment(kind: string, value: string, i: number): void {
    const head = partHeadIn(value)
    const count = timesOf(value)
    const name = head?.name ?? (count === undefined ? value : '')
    const bare = name === '' && (kind === 'grid' || kind === 'part')
    if (bare && kind === 'grid' && this.part !== undefined) return
    const named = name === '' ? kind.replace(/_/g, ' ') : name
    this.open(
      /^(?:verse|chorus|bridge)$/.test(kind) ? partKind(kind) : partKind(named),
      bare ? '' : capital(named),
      i,
      head?.times ?? count ?? 1,
    )
  }

  /** "x2" or "(repeat)" on a line of its own: what it belongs to is played so often. */
  private counted(line: string): boolean {
    const text = line.trim()
    const times = timesOf(text) ?? (ALONE_AGAIN.test(text) ? 2 : undefined)
    if (times === undefined || !this.part || this.part.lines.length === 0) return false
    this.part.times = times
    return true
  }

  /** Words before any chord: the title, who made it, or a remark. */
  private heading(line: string, i: number): boolean {
    const text = line.trim().replace(/^["“”'*#=_~\s-]+|["“”'*#=_~\s-]+$/g, '')
    const by = /^(?:words and music |written |music |words |as (?:sung|played) )?by[: ]\s*(.+)$/i.exec(text)
    if (by) {
      takeFact(this.facts, 'artist', by[1]!)
      return true
    }
    if (!this.topLine && this.facts.title === undefined && !/[,;:]$/.test(line.trim())) {
      this.topLine = { text, line: this.numberOf(i) }
      return true
    }
    // The words of the song begin with the line over which, or right after which, chords stand.
    const below = this.lines[i + 1] ?? ''
    if (isChordRow(below, this.naming) || below.trim() !== '') return false
    this.note(i, 'note', message('reading.songRemark', { text: text.slice(0, 60) }))
    this.add({ kind: 'remark', text }, i, false)
    return true
  }

  private sung(words: string, chords: readonly WrittenChord[], i: number, times = 1): void {
    const indent = words.length - words.trimStart().length
    let text = words.trim()
    let moved = chords.map((c) => ({ ...c, at: Math.max(0, c.at - indent) }))
    let own = times
    const counted = /\s*[([]?\s*(?:[x×]\s?(\d{1,2})|(\d{1,2})\s?[x×]|(repeat|bis))\s*[)\]]?\s*$/i.exec(text)
    if (
      counted &&
      (counted.index > 0 || chords.length > 0) &&
      (counted[3] === undefined || /[([]/.test(counted[0]))
    ) {
      own = Number(counted[1] ?? counted[2] ?? 2)
      text = text.slice(0, counted.index)
    }
    const named = /^\(?([\p{L}][\p{L}\d.&+ ]{0,20}?)\)?:\s+/u.exec(text)
    const singer = named && this.singers.has(named[1]!) ? named[1]! : undefined
    if (named && singer) {
      text = text.slice(named[0].length)
      moved = moved.map((c) => ({ ...c, at: Math.max(0, c.at - named[0].length) }))
    }
    const part = this.begin(i)
    const number = /^(\d{1,2})[.)]\s+(?=\S)/.exec(text)
    if (number && !part.lines.some((l) => l.kind === 'sung')) {
      if (part.name === '') Object.assign(part, { kind: 'verse', name: `Verse ${number[1]!}` })
      text = text.slice(number[0].length)
      moved = moved.map((c) => ({ ...c, at: Math.max(0, c.at - number[0].length) }))
    }
    this.line({
      kind: 'sung',
      text,
      chords: moved.map((c) => ({ ...c, at: Math.min(c.at, text.length) })),
      times: own,
      ...(singer ? { singer } : {}),
      line: this.numberOf(i),
    })
  }

  /** A part for what follows, where none is open or an empty line stood before unnamed words. */
  private begin(i: number): PartDraft {
    const { part } = this
    const unnamed = part && (part.name === '' || this.allHeadsAreChoruses())
    const played = part?.lines.some((l) => l.kind === 'sung')
    // A heading over a passage of tab alone ends with it.
    const ended = part && part.lines.length > 0 && !played
    const fresh = !part || (this.gap && ((unnamed && played) || ended))
    this.gap = false
    this.begun = true
    return fresh ? this.open('verse', '', i) : part
  }

  private chorusHeads: boolean | undefined
  private allHeadsAreChoruses(): boolean {
    this.chorusHeads ??= this.lines.every((l) => {
      const head = bracketedLine(l, this.naming) ? undefined : partHeadIn(l)
      return !head || head.kind === 'chorus'
    })
    return this.chorusHeads
  }

  private open(kind: PartKind, name: string, i: number, times = 1, recalled = false): PartDraft {
    const part: PartDraft = { kind, name, lines: [], times, recalled, line: this.numberOf(i) }
    this.part = part
    this.parts.push(part)
    this.begun = true
    this.gap = false
    return part
  }

  private add(of: Pick<WrittenLine, 'kind' | 'text'>, i: number, begins = true): void {
    if (!this.part) this.open('verse', '', i)
    if (!begins) this.begun = false
    this.line({ ...of, chords: [], times: 1, line: this.numberOf(i) })
  }

  private line(line: WrittenLine): void {
    const part = present(this.part)
    part.lines.push(line.kind === 'sung' ? this.withStatedBars(line) : line)
    if (line.kind === 'sung') part.recalled = false
  }

  /** A line with the bars that were said of it, where they have a place for each of its chords. */
  private withStatedBars(line: WrittenLine): WrittenLine {
    const { stated } = this
    this.stated = undefined
    if (!stated || (stated.changes.length !== line.chords.length && line.chords.length > 0)) return line
    const { bars, guessed, changes } = stated
    return {
      ...line,
      bars,
      ...(guessed ? { guessed } : {}),
      chords: line.chords.map((c, i) => ({ ...c, ...changes[i] })),
    }
  }

  private note(i: number, severity: Problem['severity'], says: Problem['says']): void {
    this.problems.push({ severity, line: this.numberOf(i), column: 1, says })
  }
}

const capital = (text: string) => text.slice(0, 1).toUpperCase() + text.slice(1)
