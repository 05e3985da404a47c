import { timelineOf, unfold } from '@velvet-porch/core/document'
import type { Lesson, LessonStep, Piece } from '@velvet-porch/core/lesson'
import { scoreOf } from '@velvet-porch/core/output/sound'
import { h } from './dom.ts'
import { Strings } from './strings.ts'

/** Per cent of the goal at which a student begins. */
const START = 60

/** Where the student is, for what is played. */
interface Here {
  readonly step: LessonStep | undefined
  readonly piece: Piece | undefined
}

/** Play, tempo and loop. */
export class SoundPane {
  readonly element: HTMLElement
  private readonly lesson: Lesson
  private readonly here: () => Here
  private readonly strings: Strings
  private readonly button: HTMLButtonElement
  private readonly tempo = h('input', {
    type: 'range',
    id: 'tempo',
    min: 30,
    max: 120,
    step: 1,
    value: START,
  })
  private readonly tempoText = h('output', { for: 'tempo' })
  private readonly loop: HTMLSelectElement
  private readonly order

  /** @param onStep called with the step that is heard */
  constructor(lesson: Lesson, here: () => Here, onStep: (index: number) => void) {
    this.lesson = lesson
    this.here = here
    const text = lesson.phrasing.paper.lesson
    this.order = unfold(lesson.tune.measures).order
    this.strings = new Strings(lesson.doc.setup.instrument.strings, (position) => {
      if (position === undefined) this.button.textContent = text.play
      else onStep(this.stepAt(position))
    })
    this.button = h('button', { type: 'button', class: 'main', click: () => void this.toggle() }, text.play)
    this.tempo.addEventListener('input', () => this.set())
    this.loop = h(
      'select',
      { id: 'loop', change: () => this.set() },
      h('option', { value: 'off' }, text.loopOff),
      h('option', { value: 'measure' }, text.loopMeasure),
      h('option', { value: 'piece' }, text.loopPiece),
    )
    this.element = h(
      'div',
      { class: 'sound' },
      this.button,
      h('label', { for: 'tempo' }, text.tempo),
      this.tempo,
      this.tempoText,
      h('label', { for: 'loop' }, text.loop),
      this.loop,
    )
    this.set()
  }

  /** Tempo and loop as they stand now, where the student is now. */
  set(): void {
    const percent = Number(this.tempo.value)
    const { goalBpm, tune } = this.lesson
    this.tempoText.textContent = `${percent} % · ♩ = ${Math.round((goalBpm * percent) / 100)}`
    const { step, piece } = this.here()
    const loop =
      this.loop.value === 'measure' && step
        ? this.played(step.measure, step.measure)
        : this.loop.value === 'piece' && piece
          ? this.played(piece.from, piece.to, piece.tick, piece.until)
          : undefined
    const written = tune.tempos[0]?.bpm ?? goalBpm
    const tempo = (percent / 100) * (goalBpm / written)
    this.strings.set({ tempo, ...(loop ? { loop } : {}) })
  }

  /** Plays a piece again and again at a tempo in quarter notes a minute; stops where it plays already. */
  practise(bpm: number): void {
    this.loop.value = 'piece'
    this.tempo.value = String(Math.round((100 * bpm) / this.lesson.goalBpm))
    void this.toggle()
  }

  stop(): void {
    if (this.strings.playing) this.strings.stop()
  }

  async toggle(): Promise<void> {
    if (this.strings.playing) return this.strings.stop()
    this.set()
    const { tune, doc, phrasing } = this.lesson
    const { step } = this.here()
    const from = step && this.played(step.measure, step.measure, step.tick)
    this.button.textContent = phrasing.paper.lesson.stop
    const timeline = timelineOf(tune.measures)
    const score = scoreOf(
      tune,
      doc.setup,
      doc.base,
      timeline,
      unfold(tune.measures),
      doc.variants,
      doc.regions,
    )
    await this.strings.play(score, from?.from ?? 0)
  }

  /** Played ticks of written measures, in the first pass that has them. */
  private played(from: number, to: number, tick = 0, until?: number) {
    const first = this.order.find((o) => o.measure === from)
    const last = first && this.order.find((o) => o.measure === to && o.startTick >= first.startTick)
    if (!first || !last) return undefined
    const length = this.lesson.tune.measures[to]!.length
    return { from: first.startTick + tick, to: last.startTick + (until ?? length) }
  }

  /** The step that is heard at a played tick. */
  private stepAt(position: number): number {
    const at = this.order.findLast((o) => o.startTick <= position) ?? this.order[0]!
    const tick = position - at.startTick
    const { steps } = this.lesson
    const heard = steps.findLastIndex(
      (s) =>
        (s.pass === undefined || s.pass === at.pass) &&
        (s.measure < at.measure || (s.measure === at.measure && s.tick <= tick + 1)),
    )
    return Math.max(0, heard)
  }
}
