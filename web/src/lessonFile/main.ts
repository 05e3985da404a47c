import { present } from '@velvet-porch/core/invariant'
import { measureNumbers, withVariant, type Variant } from '@velvet-porch/core/document'
import {
  cautionWords,
  isInPiece,
  lessonOf,
  pieceText,
  type Lesson,
  type PaperWords,
} from '@velvet-porch/core/lesson'
import { setupFacts, type LessonData } from '@velvet-porch/core/output/handout'
import { h } from './dom.ts'
import { entriesOf, logBook } from './logBook.ts'
import { PiecePane } from './piecePane.ts'
import { PractisePane } from './practisePane.ts'
import { SheetPane } from './sheetPane.ts'
import { SoundPane } from './soundPane.ts'
import { StepPane } from './stepPane.ts'

/**
 * The lesson file's page: the sheet, the step with its hand, playing, the pieces, all steps, the practice log.
 * @param version the other version of measures that is shown in place of what is written; absent for none
 * @param from where it is opened
 */
function open(whole: LessonData, version?: Variant, from = { measure: 0, tick: 0 }): void {
  const data = version
    ? { ...whole, doc: { ...whole.doc, base: withVariant(whole.doc.base, version) } }
    : whole
  const page = present(document.getElementById('lesson'))
  const closed = new AbortController()
  // Ladders go on from what was clean the last time.
  const log = { unit: data.settings.unit, entries: entriesOf(data.tune) }
  const lesson = lessonOf(data.tune, data.doc, data.settings, log)
  const { steps, phrasing, tune } = lesson
  const text = phrasing.paper.lesson
  let index = 0
  const sheet = new SheetPane(data, steps, (i) => go(i))
  const step = new StepPane(lesson)
  const piece = new PiecePane(lesson, data.notes, (i) => go(i))
  const sound = new SoundPane(
    lesson,
    () => ({ step: steps[index], piece: piece.at(index) }),
    (i) => i !== index && show(i),
  )
  const back = h('button', { type: 'button', class: 'big', click: () => go(index - 1) }, text.back)
  const next = h('button', { type: 'button', class: 'big', click: () => go(index + 1) }, text.next)

  const show = (to: number): void => {
    index = to
    step.show(to)
    piece.show(to)
    sheet.show(to)
    back.disabled = to === 0
    next.disabled = to === steps.length - 1
  }
  const go = (to: number): void => {
    if (to < 0 || to >= steps.length) return
    show(to)
    sound.set()
  }

  const instead = (next: Variant | undefined) => {
    sound.stop()
    closed.abort()
    page.replaceChildren()
    open(whole, next, steps[index])
    present(document.getElementById('version')).focus()
  }
  const pieces = lesson.pieces.map((p) => pieceText(p, phrasing))
  const book = logBook(data, text, pieces, lesson.goalBpm)
  const practise = new PractisePane(data, lesson, pieces, book, {
    play: (bpm) => sound.practise(bpm),
    goTo: (number) => go(steps.findIndex((s) => isInPiece(lesson.pieces[number - 1]!, s))),
  })
  page.append(
    h(
      'header',
      {},
      h('h1', {}, tune.title),
      h('p', { class: 'soft' }, setupFacts(lesson).join(' · ')),
      ...versions(whole, version, text, instead),
    ),
    sheet.element,
    h(
      'section',
      { class: 'step' },
      step.said,
      step.neck,
      h('div', { class: 'go' }, back, next),
      sound.element,
    ),
    piece.element,
    allSteps(lesson, go),
    practise.element,
    book.element,
    h(
      'footer',
      {},
      ...cautionWords(lesson).map((t) => h('p', {}, `${t}.`)),
      h('p', {}, text.loud),
      h('p', {}, phrasing.paper.blocks.leave),
    ),
  )
  const onKey = (e: KeyboardEvent) => {
    if (e.target instanceof HTMLInputElement || e.target instanceof HTMLSelectElement) return
    if (e.key === 'ArrowRight' || e.key === 'PageDown') go(index + 1)
    else if (e.key === 'ArrowLeft' || e.key === 'PageUp') go(index - 1)
    else if ((e.key === 'c' || e.key === 'x') && !e.ctrlKey && !e.metaKey) practise.went(e.key === 'c')
    else if (e.key === ' ' && !(e.target instanceof HTMLButtonElement)) void sound.toggle()
    else return
    e.preventDefault()
  }
  addEventListener('keydown', onKey, { signal: closed.signal })
  const first = steps.findIndex(
    (s) => s.measure > from.measure || (s.measure === from.measure && s.tick >= from.tick),
  )
  if (steps.length > 0) show(Math.max(0, first))
  else step.said.append(h('p', {}, phrasing.paper.blocks.nothing))
}

/** A choice among what is written and other versions of measures; nothing where there are none. */
function versions(
  { tune, doc: { variants } }: LessonData,
  chosen: Variant | undefined,
  text: PaperWords['lesson'],
  onChoice: (version: Variant | undefined) => void,
): HTMLElement[] {
  if (variants.length === 0) return []
  const options = [h('option', { value: '' }, text.asTaught)]
  const numbers = measureNumbers(tune.measures)
  const numberOf = (id: string | undefined) => numbers[tune.measures.findIndex((m) => m.id === id)] ?? ''
  for (const v of variants) {
    const [from, to] = [numberOf(v.measures[0]), numberOf(v.measures.at(-1))]
    options.push(h('option', { value: v.id }, `${from === to ? from : `${from}–${to}`}: ${v.name}`))
  }
  const list = h('select', { id: 'version' }, ...options)
  list.value = chosen?.id ?? ''
  list.addEventListener('change', () => onChoice(variants.find((v) => v.id === list.value)))
  return [h('p', { class: 'version' }, h('label', { for: 'version' }, text.version), list)]
}

/** The whole script, written when it is unfolded; a line leads to its step. */
function allSteps({ script, phrasing }: Lesson, go: (index: number) => void): HTMLElement {
  const all = h('details', { class: 'script' }, h('summary', {}, phrasing.paper.lesson.script))
  all.addEventListener('toggle', () => {
    if (all.childElementCount > 1) return
    for (const { title, lines } of script)
      all.append(
        h(
          'section',
          {},
          h('h3', {}, title),
          ...lines.map((l) =>
            h('button', { type: 'button', class: 'line-of', click: () => go(l.first) }, l.text),
          ),
        ),
      )
  })
  return all
}

open(JSON.parse(present(document.getElementById('data')).textContent) as LessonData)
