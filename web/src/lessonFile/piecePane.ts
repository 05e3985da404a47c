import { isInPiece, pieceWords, type Lesson, type Piece } from '@velvet-porch/core/lesson'
import { noteKey, type LessonData } from '@velvet-porch/core/output/handout'
import { h } from './dom.ts'

/** The pieces in a row, and what is said of the one at hand: the teacher's words, differences, how to practise it. */
export class PiecePane {
  readonly element: HTMLElement
  private readonly lesson: Lesson
  private readonly notes: LessonData['notes']
  private readonly buttons: readonly HTMLButtonElement[]
  private readonly info = h('div', { class: 'piece-info' })
  private shown: Piece | undefined

  constructor(lesson: Lesson, notes: LessonData['notes'], onStep: (index: number) => void) {
    this.lesson = lesson
    this.notes = notes
    const { pieces, steps, phrasing } = lesson
    const { pieces: name } = phrasing.paper.lesson
    this.buttons = pieces.map((p) =>
      h(
        'button',
        { type: 'button', click: () => onStep(steps.findIndex((s) => isInPiece(p, s))) },
        String(p.number),
      ),
    )
    this.element = h(
      'section',
      { class: 'pieces' },
      h('div', { class: 'piece-row', role: 'group', 'aria-label': name }, h('b', {}, name), ...this.buttons),
      this.info,
    )
  }

  /** The piece that a step is in. */
  at(index: number): Piece | undefined {
    const step = this.lesson.steps[index]
    return step && this.lesson.pieces.find((p) => isInPiece(p, step))
  }

  show(index: number): void {
    const piece = this.at(index)
    if (piece === this.shown) return
    this.shown = piece
    this.buttons.forEach((b, i) => b.setAttribute('aria-current', String(this.lesson.pieces[i] === piece)))
    if (!piece) return this.info.replaceChildren()
    const { title, like, differences, recipe, odd } = pieceWords(this.lesson, piece)
    const note = this.notes[noteKey(this.lesson.tune, piece)]
    this.info.replaceChildren(
      h('h2', {}, title),
      ...(note ? [h('p', { class: 'note' }, note)] : []),
      ...(like ? [h('p', {}, like)] : []),
      ...[...differences, ...recipe, ...odd].map((text) => h('p', {}, `${text}.`)),
    )
  }
}
