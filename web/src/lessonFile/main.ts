import {
  countText,
  differencesIn,
  differenceText,
  lessonOf,
  measureTitle,
  oddSlowly,
  pieceText,
  recipeIn,
  recipeText,
  stepSentences,
  timelineOf,
  unfold,
  type LessonStep,
} from '@velvet-porch/core'
import {
  neckSvg,
  noteKey,
  setupFacts,
  tabSystems,
  type LessonData,
  type ShownFinger,
} from '@velvet-porch/core/paper'
import { scoreOf } from '@velvet-porch/core/sound'
import { h } from './dom.ts'
import { logBook } from './logBook.ts'
import { Strings } from './strings.ts'

/** The lesson file's page: the sheet, the hand, the step in words, playing with loop and tempo, the practice log. */
function open(data: LessonData): void {
  const { tune, doc, notes } = data
  const lesson = lessonOf(tune, doc, data.settings)
  const { steps, pieces, saying, script } = lesson
  const { words, paper, numbers } = saying
  const text = paper.lesson
  const timeline = timelineOf(tune.measures)
  const unfolded = unfold(tune.measures)
  let index = 0
  let loop: 'off' | 'measure' | 'piece' = 'off'

  const sheet = h('section', { class: 'sheet', tabindex: 0, 'aria-label': tune.title })
  const count = h('p', { class: 'count' })
  const where = h('p', { class: 'where' })
  const list = h('ul', {})
  const neck = h('div', { class: 'neck-box' })
  const pieceInfo = h('div', { class: 'piece-info' })
  const pieceButtons = pieces.map((p) =>
    h('button', { type: 'button', click: () => go(steps.findIndex((s) => isIn(p, s))) }, String(p.number)),
  )
  const play = h('button', { type: 'button', class: 'main', click: () => void toggle() }, text.play)
  const tempo = h('input', {
    type: 'range',
    id: 'tempo',
    min: 30,
    max: 120,
    step: 5,
    value: 60,
    input: () => setSound(),
  })
  const tempoOut = h('output', { for: 'tempo' })
  const loops = h(
    'select',
    { id: 'loop', change: () => setLoop() },
    h('option', { value: 'off' }, text.loopOff),
    h('option', { value: 'measure' }, text.loopMeasure),
    h('option', { value: 'piece' }, text.loopPiece),
  )
  const back = h('button', { type: 'button', class: 'big', click: () => go(index - 1) }, text.back)
  const next = h('button', { type: 'button', class: 'big', click: () => go(index + 1) }, text.next)

  const strings = new Strings(doc.setup.instrument.strings, (position) => {
    if (position === undefined) {
      play.textContent = text.play
      return
    }
    const order = unfolded.order.findLast((o) => o.startTick <= position)
    if (!order) return
    const tick = position - order.startTick
    const at = steps.findLastIndex(
      (s) => s.measure < order.measure || (s.measure === order.measure && s.tick <= tick + 1),
    )
    if (at >= 0 && at !== index) show(at)
  })

  function isIn(p: (typeof pieces)[number], s: LessonStep): boolean {
    const after = s.measure > p.from || s.tick >= (p.tick ?? 0)
    const before = s.measure < p.to || s.tick < (p.until ?? Infinity)
    return s.measure >= p.from && s.measure <= p.to && after && before
  }
  const pieceAt = () => pieces.find((p) => steps[index] && isIn(p, steps[index]!))

  /** Played ticks of written measures, in the first pass that has them. */
  function playedRange(from: number, to: number, tick = 0, until?: number) {
    const first = unfolded.order.find((o) => o.measure === from)
    const last = first && unfolded.order.find((o) => o.measure === to && o.startTick >= first.startTick)
    return first && last
      ? { from: first.startTick + tick, to: last.startTick + (until ?? tune.measures[to]!.length) }
      : undefined
  }

  function setSound(): void {
    const percent = Number(tempo.value)
    tempoOut.textContent = `${percent} % · ♩ = ${Math.round((lesson.goalBpm * percent) / 100)}`
    const step = steps[index]
    const piece = pieceAt()
    const range =
      loop === 'measure' && step
        ? playedRange(step.measure, step.measure)
        : loop === 'piece' && piece
          ? playedRange(piece.from, piece.to, piece.tick, piece.until)
          : undefined
    const written = tune.tempos[0]?.bpm ?? lesson.goalBpm
    strings.set({
      tempo: (percent / 100) * (lesson.goalBpm / written),
      metronome: false,
      ...(range ? { loop: range } : {}),
    })
  }
  function setLoop(): void {
    loop = loops.value as typeof loop
    setSound()
  }
  async function toggle(): Promise<void> {
    if (strings.playing) return strings.stop()
    setSound()
    const step = steps[index]
    const from = step && playedRange(step.measure, step.measure, step.tick)
    play.textContent = text.stop
    await strings.play(scoreOf(tune, doc.setup, doc.base, timeline, unfolded, doc.variants), from?.from ?? 0)
  }

  function go(to: number): void {
    if (to < 0 || to >= steps.length) return
    show(to)
    setSound()
  }

  /** Where each step stands on the sheet, known once it is drawn. */
  let marks: { line: HTMLElement; x: number; top: number; height: number }[] = []
  const mark = h('div', { class: 'mark' })
  function draw(): void {
    const room = Math.max(260, sheet.clientWidth - 8)
    const systems = tabSystems(tune, doc, {
      width: room,
      layers: {
        chords: 'shapes',
        fingers: true,
        picking: true,
        counts: true,
        strings: false,
        rhythm: true,
        lyrics: true,
      },
      naming: data.settings.names === 'none' ? 'letters' : data.settings.names,
    })
    const lines = systems.map((s) => {
      const line = h('div', { class: 'line' })
      // Drawn by this program from data whose texts are escaped.
      line.innerHTML = s.svg
      line.addEventListener('click', (e) => {
        const x = e.clientX - line.getBoundingClientRect().left
        const measure = s.measures.findLast((m) => m.x <= x) ?? s.measures[0]!
        const column = measure.columns.findLast((c) => c.x <= x + 8) ?? measure.columns[0]!
        const at = steps.findIndex((st) => st.measure === measure.index && st.tick >= column.tick)
        go(at >= 0 ? at : steps.findIndex((st) => st.measure === measure.index))
      })
      return line
    })
    sheet.replaceChildren(...lines)
    marks = steps.map((st) => {
      const i = systems.findIndex((s) => s.from <= st.measure && st.measure <= s.to)
      const s = systems[i]!
      const column = s.measures
        .find((m) => m.index === st.measure)!
        .columns.findLast((c) => c.tick <= st.tick)!
      return { line: lines[i]!, x: column.x, top: s.top, height: s.bottom - s.top }
    })
    placeMark()
  }
  function placeMark(): void {
    const at = marks[index]
    if (!at) return
    mark.style.cssText = `left:${at.x - 10}px;top:${at.top - 8}px;height:${at.height + 16}px`
    at.line.append(mark)
    const line = at.line.getBoundingClientRect()
    const room = sheet.getBoundingClientRect()
    if (line.top < room.top || line.bottom > room.bottom)
      sheet.scrollTo({ top: sheet.scrollTop + line.top - room.top - 6 })
  }

  function show(to: number): void {
    index = to
    const step = steps[index]!
    const own = script.find((m) => m.measure === step.measure)
    where.textContent = `${own?.title ?? measureTitle(numbers[step.measure]!, words)} · ${fillStep(index + 1)}`
    count.textContent = countText(step.count, words)
    list.replaceChildren(...stepSentences(step, words, lesson.nameOf).map((s) => h('li', {}, `${s}.`)))
    if (own?.silent) list.append(h('li', { class: 'soft' }, `${own.silent}.`))
    neck.innerHTML = neckSvg(
      doc.setup,
      shownFingers(step, steps[index + 1]),
      step.notes.map((n) => n.string),
      {
        width: 210,
        height: 300,
      },
    )
    back.disabled = index === 0
    next.disabled = index === steps.length - 1
    const piece = pieceAt()
    pieceButtons.forEach((b, i) => b.setAttribute('aria-current', String(pieces[i] === piece)))
    showPiece(piece)
    placeMark()
  }
  const fillStep = (n: number) =>
    text.step.replace('{step}', String(n)).replace('{steps}', String(steps.length))

  let shownPiece: (typeof pieces)[number] | undefined
  function showPiece(piece: (typeof pieces)[number] | undefined): void {
    if (piece === shownPiece) return
    shownPiece = piece
    if (!piece) return pieceInfo.replaceChildren()
    const like = piece.like
      ? [
          (piece.like.differs.length === 0 ? paper.differs.same : paper.differs.like).replace(
            '{piece}',
            String(piece.like.piece),
          ),
        ]
      : []
    const told = notes[noteKey(tune, piece)]
    pieceInfo.replaceChildren(
      h('h2', {}, pieceText(piece, saying)),
      ...(told ? [h('p', { class: 'told' }, told)] : []),
      ...[
        ...like,
        ...differencesIn(lesson, piece).map((d) => `${differenceText(d, saying)}.`),
        ...recipeText(recipeIn(lesson, piece), saying).map((t) => `${t}.`),
        ...oddSlowly(tune, doc, piece).map((o) => `${paper.odd[o]}.`),
      ].map((t) => h('p', {}, t)),
    )
  }

  const all = h('details', { class: 'script' }, h('summary', {}, text.script))
  all.addEventListener('toggle', () => {
    if (all.childElementCount > 1) return
    for (const m of script)
      all.append(
        h(
          'section',
          {},
          h('h3', {}, m.title),
          ...m.lines.map((l) => h('p', { click: () => go(l.first) }, l.text)),
        ),
      )
  })
  const { cautions } = paper
  const care = [
    ...lesson.cautions.map((c) => cautions[c]),
    cautions.general,
    cautions.clinician,
    text.loud.replace(/\.$/, ''),
  ]
  document.getElementById('lesson')!.append(
    h('header', {}, h('h1', {}, tune.title), h('p', { class: 'soft' }, setupFacts(lesson).join(' · '))),
    sheet,
    h(
      'section',
      { class: 'step' },
      h('div', { class: 'said', 'aria-live': 'polite' }, where, count, list),
      neck,
      h('div', { class: 'go' }, back, next),
      h(
        'div',
        { class: 'sound' },
        play,
        h('label', { for: 'tempo' }, text.tempo),
        tempo,
        tempoOut,
        h('label', { for: 'loop' }, text.loop),
        loops,
      ),
    ),
    h(
      'section',
      { class: 'pieces' },
      h(
        'div',
        { class: 'piece-row', role: 'group', 'aria-label': text.pieces },
        h('b', {}, text.pieces),
        ...pieceButtons,
      ),
      pieceInfo,
    ),
    all,
    logBook(
      tune,
      text,
      pieces.map((p) => pieceText(p, saying)),
      lesson.goalBpm,
    ),
    h('footer', {}, ...care.map((t) => h('p', {}, `${t}.`)), h('p', {}, paper.blocks.leave)),
  )
  addEventListener('keydown', (e) => {
    if (e.target instanceof HTMLInputElement || e.target instanceof HTMLSelectElement) return
    if (e.key === 'ArrowRight' || e.key === 'PageDown') go(index + 1)
    else if (e.key === 'ArrowLeft' || e.key === 'PageUp') go(index - 1)
    else if (e.key === ' ' && !(e.target instanceof HTMLButtonElement)) void toggle()
    else return
    e.preventDefault()
  })
  let width = 0
  new ResizeObserver(() => {
    if (sheet.clientWidth === width) return
    width = sheet.clientWidth
    draw()
  }).observe(sheet)
  if (steps.length > 0) show(0)
  else pieceInfo.append(h('p', {}, paper.blocks.nothing))
  setSound()
}

/** The hand at a step, and what comes next where it is not down yet. */
function shownFingers(step: LessonStep, after: LessonStep | undefined): ShownFinger[] {
  const { stays, slides, lands } = step.hand
  const now: ShownFinger[] = [
    ...stays.map((f) => ({ ...f, state: 'stays' as const })),
    ...[...slides, ...lands].map((f) => ({ ...f, state: 'lands' as const })),
  ]
  const coming = [...(after?.hand.lands ?? []), ...(after?.hand.slides ?? [])]
  return [...now, ...coming.map((f) => ({ ...f, state: 'next' as const }))]
}

open(JSON.parse(document.getElementById('data')!.textContent) as LessonData)
