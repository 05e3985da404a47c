import { present } from '@velvet-porch/core/invariant'
import { tabSystems, type LessonData, type PaperLayers } from '@velvet-porch/core/output/handout'
import { namingOf, type LessonStep } from '@velvet-porch/core/lesson'
import { h } from './dom.ts'

const LAYERS: PaperLayers = {
  chords: 'shapes',
  fingers: true,
  picking: true,
  counts: true,
  strings: false,
  rhythm: true,
  lyrics: true,
}

/** The narrowest room in px that a measure gets. */
const NARROWEST = 260

/** The tab in lines as wide as the screen, with a mark at the step; a click goes to a step. */
export class SheetPane {
  readonly element: HTMLElement
  private readonly data: LessonData
  private readonly steps: readonly LessonStep[]
  private readonly onStep: (index: number) => void
  private readonly mark = h('div', { class: 'mark' })
  /** Where each step stands. */
  private places: { line: HTMLElement; x: number; top: number; height: number }[] = []
  private index = 0

  constructor(data: LessonData, steps: readonly LessonStep[], onStep: (index: number) => void) {
    this.data = data
    this.steps = steps
    this.onStep = onStep
    this.element = h('section', { class: 'sheet', tabindex: 0, 'aria-label': data.tune.title })
    let width = 0
    new ResizeObserver(() => {
      if (this.element.clientWidth === width) return
      width = this.element.clientWidth
      this.draw()
    }).observe(this.element)
  }

  /** Marks a step and brings its line into view. */
  show(index: number): void {
    this.index = index
    const at = this.places[index]
    if (!at) return
    this.mark.style.cssText = `left:${at.x - 10}px;top:${at.top - 8}px;height:${at.height + 16}px`
    at.line.append(this.mark)
    const line = at.line.getBoundingClientRect()
    const room = this.element.getBoundingClientRect()
    if (line.top < room.top || line.bottom > room.bottom)
      this.element.scrollTo({ top: this.element.scrollTop + line.top - room.top - 6 })
  }

  private draw(): void {
    const { tune, doc, settings } = this.data
    const width = Math.max(NARROWEST, this.element.clientWidth - 8)
    const systems = tabSystems(tune, doc, { width, layers: LAYERS, naming: namingOf(settings) })
    const lines = systems.map((s) => {
      const line = h('div', { class: 'line' })
      // Drawn by the core, which escapes every text.
      line.innerHTML = s.svg
      line.addEventListener('click', (e) => {
        const x = e.clientX - line.getBoundingClientRect().left
        const measure = s.measures.findLast((m) => m.x <= x) ?? s.measures[0]!
        const column = measure.columns.findLast((c) => c.x <= x + 8) ?? measure.columns[0]!
        const inMeasure = this.steps.findIndex((st) => st.measure === measure.index)
        const at = this.steps.findIndex((st) => st.measure === measure.index && st.tick >= column.tick)
        this.onStep(at >= 0 ? at : inMeasure)
      })
      return line
    })
    this.element.replaceChildren(...lines)
    this.places = this.steps.map((st) => {
      const i = systems.findIndex((s) => s.from <= st.measure && st.measure <= s.to)
      const s = systems[i]!
      const { columns } = present(s.measures.find((m) => m.index === st.measure))
      // What is played on one pass may begin earlier than what stands on the sheet.
      const { x } = columns.findLast((c) => c.tick <= st.tick) ?? columns[0]!
      return { line: lines[i]!, x, top: s.top, height: s.bottom - s.top }
    })
    this.show(this.index)
  }
}
