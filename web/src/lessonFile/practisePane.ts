import { fill, recipeIn, temposWithin, type Lesson } from '@velvet-porch/core/lesson'
import type { LessonData } from '@velvet-porch/core/output/handout'
import {
  afterRepetition,
  isAtGoal,
  newLadder,
  practiceList,
  studyOf,
  practisedEntry,
  type PracticeItem,
  type TempoLadder,
} from '@velvet-porch/core/studio'
import { h } from './dom.ts'
import { today, type LogBook } from './logBook.ts'

/** What the pane has others do. */
interface Doings {
  readonly play: (bpm: number) => void
  readonly goTo: (piece: number) => void
}

/** Today's list, the piece at hand on its way up to its tempo, and how it went: one key. */
export class PractisePane {
  readonly element: HTMLElement
  private readonly list = h('ol', { class: 'today' })
  private readonly title = h('h3', {})
  private readonly rungs = h('ol', { class: 'rungs' })
  private readonly words = h('p', { role: 'status', class: 'climb' })
  private readonly written = h('p', { role: 'status', class: 'soft' })
  private readonly buttons: HTMLElement
  private piece = 0
  private ladder: TempoLadder = newLadder([])
  private tries = 0
  private items: readonly PracticeItem[]
  private begun = Date.now()

  constructor(
    private readonly data: LessonData,
    private readonly lesson: Lesson,
    private readonly names: readonly string[],
    private readonly book: LogBook,
    private readonly doings: Doings,
  ) {
    this.items = this.todaysItems()
    const text = lesson.phrasing.paper.lesson
    const button = (label: string, click: () => void, kind = '') =>
      h('button', { type: 'button', click, ...(kind ? { class: kind } : {}) }, label)
    this.buttons = h(
      'div',
      { class: 'go' },
      button(text.playPiece, () => this.play()),
      button(text.wasClean, () => this.went(true), 'main'),
      button(text.notYet, () => this.went(false)),
      button(text.intoLog, () => this.write()),
    )
    this.element = h(
      'section',
      { class: 'practise', 'aria-labelledby': 'practise' },
      h('h2', { id: 'practise' }, text.practise),
      this.list,
      this.title,
      this.rungs,
      this.words,
      this.buttons,
      this.written,
    )
    this.choose(this.items[0]?.piece ?? 1, false)
  }

  /** One repetition more, clean or not. */
  went(wasClean: boolean): void {
    this.tries++
    this.ladder = afterRepetition(this.ladder, wasClean, this.data.settings.way.clean)
    this.draw()
  }

  /** Today's list, worked out from the whole tab: anew only when something was written down. */
  private todaysItems(): readonly PracticeItem[] {
    const { tune, doc, settings } = this.data
    const entries = this.book.entries()
    const given = entries.map((e) => e.day).sort()[0] ?? today()
    const source = { tune, doc, unit: settings.unit, entries, given }
    return practiceList(studyOf(source, today(), settings.way).toPractise, today(), settings.minutes)
  }

  private choose(piece: number, goThere: boolean): void {
    this.piece = piece
    const own = this.lesson.pieces[piece - 1]
    this.ladder = newLadder(own ? temposWithin(recipeIn(this.lesson, own)) : [])
    this.tries = 0
    this.begun = Date.now()
    if (goThere) this.doings.goTo(piece)
    this.draw()
  }

  private play(): void {
    this.doings.goTo(this.piece)
    const bpm = this.ladder.tempos[this.ladder.at]
    if (bpm !== undefined) this.doings.play(bpm)
  }

  /** Writes down how far it went; the next piece of the list comes. */
  private write(): void {
    if (this.tries === 0) return
    const entry = practisedEntry(this.ladder, this.data.settings.way.clean, {
      day: today(),
      piece: this.piece,
      ms: Date.now() - this.begun,
    })
    this.book.write(entry)
    this.items = this.todaysItems()
    const text = this.lesson.phrasing.paper.lesson
    this.written.textContent = fill(text.practised, { piece: this.names[this.piece - 1] ?? '' })
    this.choose(this.items.find((i) => i.piece !== entry.piece)?.piece ?? entry.piece, true)
  }

  private draw(): void {
    const text = this.lesson.phrasing.paper.lesson
    const why = { due: text.due, stuck: text.stuck, new: text.fresh }
    const { items } = this
    this.list.replaceChildren(
      ...(items.length === 0
        ? [h('li', {}, text.nothingDue)]
        : items.map((item) =>
            h(
              'li',
              {},
              h(
                'button',
                {
                  type: 'button',
                  'aria-pressed': String(item.piece === this.piece),
                  click: () => this.choose(item.piece, true),
                },
                h('b', {}, why[item.why]),
                ` ${this.names[item.piece - 1] ?? ''} · ${fill(text.oneMinutes, { minutes: Math.round(item.minutes) })}`,
              ),
            ),
          )),
    )
    this.title.textContent = this.names[this.piece - 1] ?? ''
    const { tempos, at, clean, reached = 0 } = this.ladder
    this.rungs.replaceChildren(
      ...tempos.map((bpm, i) =>
        h(
          'li',
          {
            ...(i === at ? { 'aria-current': 'step' } : {}),
            ...(bpm <= reached ? { class: 'reached' } : {}),
          },
          `♩ = ${bpm}`,
        ),
      ),
    )
    this.words.textContent = isAtGoal(this.ladder)
      ? text.goal
      : fill(text.needed, { clean, needed: this.data.settings.way.clean, bpm: tempos[at] ?? 0 })
  }
}
