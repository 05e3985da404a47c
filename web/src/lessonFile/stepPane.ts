import { present } from '@velvet-porch/core/invariant'
import { countText, fill, stepSentences, type Lesson, type LessonStep } from '@velvet-porch/core/lesson'
import { neckSvg, type ShownFinger } from '@velvet-porch/core/output/handout'
import { h } from './dom.ts'

const NECK = { width: 210, height: 300 }

/** One step: its measure and count, what is done in words, the hand on the neck. */
export class StepPane {
  readonly said: HTMLElement
  readonly neck = h('div', { class: 'neck-box' })
  private readonly lesson: Lesson
  private readonly where = h('p', { class: 'where' })
  private readonly count = h('p', { class: 'count' })
  private readonly list = h('ul')

  constructor(lesson: Lesson) {
    this.lesson = lesson
    this.said = h('div', { class: 'said', 'aria-live': 'polite' }, this.where, this.count, this.list)
  }

  show(index: number): void {
    const { steps, script, phrasing, nameOf, doc } = this.lesson
    const step = steps[index]!
    const own = present(script.find((m) => m.measure === step.measure && m.pass === step.pass))
    const number = fill(phrasing.paper.lesson.step, { step: index + 1, steps: steps.length })
    this.where.textContent = `${own.title} · ${number}`
    this.count.textContent = countText(step.count, phrasing.words)
    this.list.replaceChildren(...stepSentences(step, phrasing.words, nameOf).map((s) => h('li', {}, `${s}.`)))
    if (own.silent) this.list.append(h('li', { class: 'soft' }, `${own.silent}.`))
    const struck = step.notes.map((n) => n.string)
    // Drawn by the core from numbers alone.
    this.neck.innerHTML = neckSvg(doc.setup, shownFingers(step, steps[index + 1]), struck, NECK)
  }
}

/** The hand at a step, and what comes next where it is not down yet. */
function shownFingers({ hand }: LessonStep, after: LessonStep | undefined): ShownFinger[] {
  const coming = [...(after?.hand.lands ?? []), ...(after?.hand.slides ?? [])]
  return [
    ...hand.stays.map((f) => ({ ...f, state: 'stays' as const })),
    ...[...hand.slides, ...hand.lands].map((f) => ({ ...f, state: 'lands' as const })),
    ...coming.map((f) => ({ ...f, state: 'next' as const })),
  ]
}
