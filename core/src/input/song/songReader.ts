import { partKind, type PartKind } from '../../document/partKind.ts'
import { present } from '../../invariant.ts'
import { message } from '../../messages/message.ts'
import type { NoteNaming } from '../../music/pitch/noteNaming.ts'
import { isTabLine } from '../../output/text/tabSigns.ts'
import { takeFact, takeFactLine, type HeadFacts } from '../headFacts.ts'
import { partHeadIn, type PartHead } from '../partHeads.ts'
import type { Problem } from '../problem.ts'
import { timesOf } from '../times.ts'
import { bracketedLine } from './bracketedLine.ts'
import { isChordRow, isGridRow } from './chordRow.ts'
import { definedShape, type DefinedShape } from './definedShape.ts'
import { directiveIn, OF_THE_PAGE } from './directive.ts'
import { hasLinesBelow, isWords, timesAlone } from './lineKinds.ts'
import { namedParts } from './namedParts.ts'
import type { ReadSong, WrittenChord, WrittenLine, WrittenPart } from './readSong.ts'
import { singersIn } from './singers.ts'
import { statedBars, type StatedBars } from './statedBars.ts'
import { chordsOfRow, gridLine, wordsLine } from './writtenLines.ts'

interface PartDraft {
  kind: PartKind
  name: string
  lines: WrittenLine[]
  times: number
  recalled: boolean
  line: number
}

/** Goes through the lines of one song. */
export class SongReader {
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
  /** Chord shapes that the song brings, by their names: the last of a name counts. */
  private readonly shapes = new Map<string, DefinedShape>()
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
    return {
      ...facts,
      capo,
      parts: namedParts(parts),
      shapes: [...this.shapes.values()],
      problems: this.problems,
    }
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
    if (isTabLine(line)) {
      this.note(i, 'note', message('reading.songTab'))
      let to = i
      while (isTabLine(this.lines[to] ?? '')) this.add({ kind: 'remark', text: this.lines[to]! }, to++)
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

  /** A line of chords, with the words under it; how many lines that was. */
  private row(i: number, line: string, grid: boolean): number {
    const under = this.lines[i + 1] ?? ''
    const words = !this.inside && isWords(under, this.naming) ? under : ''
    if (grid) this.grid(line, words, i)
    else {
      const { chords, times } = chordsOfRow(line, this.naming)
      this.sung(words, words === '' ? chords.map((c) => ({ ...c, at: 0 })) : chords, i, times)
    }
    return words === '' ? 1 : 2
  }

  private grid(row: string, words: string, i: number): void {
    const line = gridLine(row, words, this.naming, this.bars)
    this.begin(i)
    this.line({ ...line, line: this.numberOf(i) })
    for (let b = 0; b < line.bars; b++) this.bars.push(line.chords.filter((c) => c.bar === b))
  }

  /** What stands behind a heading on its own line: chords, or words. */
  private rest(text: string, i: number): void {
    if (isGridRow(text, this.naming)) return this.grid(text, '', i)
    if (isChordRow(text, this.naming)) {
      const { chords, times } = chordsOfRow(text, this.naming)
      return this.sung(
        '',
        chords.map((c) => ({ ...c, at: 0 })),
        i,
        times,
      )
    }
    const bracketed = bracketedLine(text, this.naming)
    return this.sung(bracketed?.text ?? text, bracketed?.chords ?? [], i)
  }

  /** A heading opens its part; one that calls for a part which stands elsewhere opens nothing. */
  private headed(head: PartHead, i: number): void {
    const known = this.parts.some((p) => p.kind === head.kind && p.name === head.name && p.lines.length > 0)
    const bare = (this.lines[i + 1] ?? '').trim() === '' && known && head.kind === 'chorus'
    const again = !head.rest && (head.again || bare || !hasLinesBelow(this.lines, i, this.naming))
    this.open(head.kind, head.name, i, head.times, again)
    if (again) this.part = undefined
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
    const shape = name === 'define' || name === 'chord' ? definedShape(value) : undefined
    if (shape) {
      this.shapes.set(shape.chord, shape)
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
    const times = timesAlone(line)
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
    const part = this.begin(i)
    const isFirst = !part.lines.some((l) => l.kind === 'sung')
    const { line, verse } = wordsLine(words, chords, times, this.singers, isFirst)
    if (verse !== undefined && part.name === '')
      Object.assign(part, { kind: 'verse', name: `Verse ${verse}` })
    this.line({ ...line, line: this.numberOf(i) })
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
