import { boxSvg } from '../engrave/boxPaper.ts'
import { el, escaped } from '../markup.ts'
import type { DrawStaff } from '../engrave/paperStaff.ts'
import type { PaperOptions } from '../engrave/tabPage.ts'
import { drawnSystems, tabSystems, type TabSystem } from '../engrave/tabPaper.ts'
import { withVariant } from '../../document/variants.ts'
import { passVersions, type PassVersion } from '../../lesson/steps/passSteps.ts'
import { passTitle } from '../../lesson/text/lessonText.ts'
import { formMap } from '../../document/form/formMap.ts'
import { timelineOf } from '../../document/form/timeline.ts'
import { chordIn } from '../../music/harmony/chordSymbol.ts'
import type { NoteNaming } from '../../music/pitch/noteNaming.ts'
import { harmonyLine } from '../../arrange/plan/harmonyLine.ts'
import { chunk } from 'es-toolkit'
import { chordShapes, type ChordShape } from '../../lesson/steps/chordShapes.ts'
import { shapeFrames } from '../../lesson/steps/shapeFrames.ts'
import { strumChart } from './strumChart.ts'
import { isStrummed, type StruckMoment } from '../../lesson/steps/struckFrom.ts'
import { countText } from '../../lesson/text/stepText.ts'
import { drillOf, drillsFor } from '../../lesson/practice/drill.ts'
import { planText, type Phrasing } from '../../lesson/text/learnText.ts'
import { cautionWords, pieceWords, recipeIn, toLearnIn, type Lesson } from '../../lesson/text/lesson.ts'
import { lessonPlan, type PlanItem } from '../../lesson/practice/lessonPlan.ts'
import { finish, type Turns } from '../../turns.ts'
import { namingOf } from '../../lesson/text/lessonSettings.ts'
import { fill } from '../../lesson/text/template.ts'
import { MARGIN_PX, PAPER_PX, printScale, type Block, type HandoutDoc } from './handout.ts'
import { noteKey } from './lessonFile.ts'
import { lyricLines } from './lyricLines.ts'
import { songPieces, sungHtml } from './songPieces.ts'
import { songParts } from './songParts.ts'
import { setupFacts } from './setupFacts.ts'

/** A part of a block that is never broken across pages. `heads` keeps it with what follows. */
export interface PaperPiece {
  readonly block: string
  readonly html: string
  readonly heads?: true
  /** Begins a page, and is what the contents of a book call by this id. */
  readonly opens?: string
}

/** Everything that blocks are made from. */
interface HandoutContext {
  readonly handout: HandoutDoc
  readonly lesson: Lesson
  readonly notes: Notes
  readonly drawStaff: DrawStaff | undefined
  readonly naming: NoteNaming
  /** Room on the page in px before large print. */
  readonly width: number
  readonly scale: number
}

/** Words of the teacher to pieces, by `noteKey`. */
type Notes = Readonly<Record<string, string>>

/**
 * All pieces of a handout, block by block. Every text is escaped: a name with markup appears as it was typed.
 * @param drawStaff draws the staff over the tab, where the handout asks for one
 */
export const handoutPieces = (
  handout: HandoutDoc,
  lesson: Lesson,
  notes: Notes = {},
  drawStaff?: DrawStaff,
): PaperPiece[] => finish(composing(handout, lesson, notes, drawStaff))

/** The same, giving its turn back after every piece. */
export function* composing(
  handout: HandoutDoc,
  lesson: Lesson,
  notes: Notes = {},
  drawStaff?: DrawStaff,
): Turns<PaperPiece[]> {
  const scale = printScale(handout)
  const context: HandoutContext = {
    handout,
    lesson,
    notes,
    drawStaff,
    naming: namingOf(handout.settings),
    width: Math.floor((PAPER_PX[handout.paper].width - 2 * MARGIN_PX) / scale),
    scale,
  }
  const pieces: PaperPiece[] = []
  for (const block of handout.blocks)
    for (const { html, heads } of BLOCKS[block.kind](context, block)) {
      pieces.push({ block: block.id, html, ...(heads ? { heads } : {}) })
      yield
    }
  return pieces
}

type Piece = Omit<PaperPiece, 'block'>
/** Makes the pieces of a block; of a long one each when it is asked for. */
type Making = (context: HandoutContext, block: Block) => Iterable<Piece>

const p = (text: string, kind = ''): string => el('p', kind ? { class: kind } : {}, escaped(text))
const head = (text: string): Piece => ({ html: el('h2', {}, escaped(text)), heads: true })

/** A drawing at the size of the print. */
const sized = (
  { scale }: HandoutContext,
  { svg, width, height }: Pick<TabSystem, 'svg' | 'width' | 'height'>,
): string => el('div', { class: 'draw', style: `width:${width * scale}px;height:${height * scale}px` }, svg)

const title: Making = ({ lesson: { tune } }) => [
  { html: el('h1', {}, escaped(tune.title)) + (tune.composer ? p(tune.composer, 'by') : ''), heads: true },
]

const setup: Making = ({ lesson }) => [{ html: p(setupFacts(lesson).join(' · '), 'facts') }]

/** Boxes in a row on paper, and of those that are large enough for a music stand. */
const BOXES_A_ROW = 6
const FRAMES_A_ROW = 4

const shapes: Making = (context) => {
  const { lesson } = context
  const { tune, doc, phrasing } = lesson
  const shown = chordShapes(tune, doc)
  if (shown.length === 0) return []
  const boxes = shown.map((s) =>
    figure(context, s, isStrummed(s.struck) ? [] : [stringsText(s.struck, phrasing)]),
  )
  return [
    head(phrasing.paper.blocks.shapes),
    ...rowsOf(context, boxes, BOXES_A_ROW, 'boxes'),
    ...strums(phrasing, shown, new Set()),
  ]
}

/** One box a change, in playing order: part by part, each strum once. */
const frames: Making = (context, { counts = false }) => {
  const { lesson } = context
  const { tune, doc, phrasing } = lesson
  const said = new Set<string>()
  return shapeFrames(tune, doc).flatMap(({ name, frames: own }) => [
    head(name || phrasing.paper.blocks.frames),
    ...strums(phrasing, own, said),
    ...rowsOf(
      context,
      own.map((f) =>
        figure(
          context,
          f,
          isStrummed(f.struck)
            ? []
            : [struckText(f.struck), ...(counts ? [countsText(f.struck, phrasing)] : [])],
        ),
      ),
      FRAMES_A_ROW,
      'boxes frames',
    ),
  ])
}

/** Boxes row by row, that a page may break between; the first row keeps with what stands over it. */
function rowsOf({ scale }: HandoutContext, boxes: readonly string[], most: number, kind: string): Piece[] {
  return chunk(boxes, scale > 1 ? most - 2 : most).map((row) => ({
    html: el('div', { class: kind }, ...row),
  }))
}

/** A box under its name, with a few lines beneath. */
function figure(
  { lesson, naming }: HandoutContext,
  { chord, held }: Pick<ChordShape, 'chord' | 'held'>,
  lines: readonly string[],
): string {
  const left = lesson.doc.setup.player.handedness === 'left'
  const name = chordIn(naming, chord)
  const spoken = held.frets.map((f) => f ?? 'x').reverse()
  return el(
    'figure',
    {},
    el('figcaption', {}, escaped(name)),
    boxSvg(held, left, `${name}: ${spoken.join(' ')}`),
    ...lines.map((text) => p(text, 'pattern')),
  )
}

/** Strings as they are struck, a pinch in brackets: "5 3 2 [5 1]". */
const struckText = (struck: readonly StruckMoment[]): string =>
  struck.map(({ strings }) => (strings.length > 1 ? `[${strings.join(' ')}]` : strings.join(' '))).join(' ')

const stringsText = (struck: readonly StruckMoment[], { paper }: Phrasing): string =>
  fill(paper.blocks.patterns, { strings: struckText(struck) })

const countsText = (struck: readonly StruckMoment[], { words }: Phrasing): string =>
  struck.map(({ count }) => countText(count, words)).join(', ')

/** Strums, each once. */
function strums(
  { paper, words }: Phrasing,
  of: readonly { readonly struck: readonly StruckMoment[] }[],
  said: Set<string>,
): Piece[] {
  const strummed = of.map((f) => f.struck).filter(isStrummed)
  // One stroke alone is an end, not the strum, unless there is nothing else.
  const most = Math.max(0, ...strummed.map((s) => s.length))
  return strummed.flatMap((struck) => {
    if (struck.length === 1 && most > 1) return []
    const html = strumChart(fill(paper.blocks.strum, { strokes: '' }).trim(), struck, words)
    if (said.has(html)) return []
    said.add(html)
    return [{ html, heads: true as const }]
  })
}

/** How tab is drawn on this handout. */
const paperOptions = ({ handout, naming, width, drawStaff }: HandoutContext): PaperOptions => ({
  width,
  layers: handout.layers,
  naming,
  ...(drawStaff ? { drawStaff } : {}),
})

const tab: Making = function* (context, { from, to }) {
  const { lesson } = context
  const range = { ...(from === undefined ? {} : { from }), ...(to === undefined ? {} : { to }) }
  const options = paperOptions(context)
  for (const system of drawnSystems(lesson.tune, lesson.doc, { ...options, ...range }))
    yield { html: sized(context, system) }
  for (const version of passVersions(lesson.tune, lesson.doc))
    if (version.to >= (from ?? 0) && version.from <= (to ?? Infinity)) yield ossia(context, version, options)
}

/** Measures as they are played on one pass, under their title. */
function ossia(context: HandoutContext, version: PassVersion, options: PaperOptions): Piece {
  const { tune, doc, phrasing } = context.lesson
  const { variant, pass, from, to } = version
  const [first, last] = [phrasing.numbers[from]!, phrasing.numbers[to]!]
  const title = passTitle(from === to ? first : `${first}–${last}`, pass, phrasing.words)
  const played = { ...doc, base: withVariant(doc.base, variant) }
  const systems = tabSystems(tune, played, { ...options, from, to })
  return {
    html: el(
      'div',
      { class: 'ossia' },
      p(variant.name ? `${title}: ${variant.name}` : title, 'caption'),
      ...systems.map((s) => sized(context, s)),
    ),
  }
}

const steps: Making = ({ lesson }, { from = 0, to = Infinity }) => {
  const measures = lesson.script.filter((m) => m.measure >= from && m.measure <= to)
  return [
    head(lesson.phrasing.paper.blocks.steps),
    ...measures.map(({ title, silent, lines }) => ({
      html: el(
        'section',
        { class: 'steps' },
        el('h3', {}, escaped(title), silent ? el('small', {}, escaped(silent)) : ''),
        ...lines.map((l) => p(l.text)),
      ),
    })),
  ]
}

/** Changes that get a drill on paper. */
const DRILLED = 2

const drills: Making = (context) => {
  const { lesson } = context
  const { paper, numbers } = lesson.phrasing
  const usual = paperOptions(context)
  const options: PaperOptions = {
    ...usual,
    layers: { ...usual.layers, chords: 'none', lyrics: false, staff: false },
  }
  const made = lesson.spots.slice(0, DRILLED).flatMap((spot) =>
    drillsFor(spot).map((drill): Piece => {
      const { tune, arrangement } = drillOf(drill, spot, lesson.tune, lesson.doc)
      const caption = fill(paper.drills.of, {
        measure: numbers[spot.measure]!,
        drill: paper.drills[drill],
        bpm: spot.bpm,
      })
      const systems = tabSystems(tune, arrangement, options)
      return {
        html: el('div', { class: 'drill' }, p(caption, 'caption'), ...systems.map((s) => sized(context, s))),
      }
    }),
  )
  return made.length > 0 ? [head(paper.blocks.drills), ...made] : []
}

const plan: Making = ({ lesson, notes: ownNotes }) => {
  const { phrasing, settings } = lesson
  const { items } = lessonPlan(toLearnIn(lesson), (piece) => recipeIn(lesson, piece), settings.minutes)
  return [
    head(phrasing.paper.blocks.plan),
    ...items.map((item) => ({ html: planHtml(lesson, item, ownNotes) })),
    { html: el('div', { class: 'care' }, ...cautionWords(lesson).map((t) => p(`${t}.`))) },
  ]
}

function planHtml(lesson: Lesson, item: PlanItem, notes: Notes): string {
  const { phrasing } = lesson
  const minutes = fill(phrasing.paper.learn.minutes, { n: item.minutes })
  const first = el(
    'p',
    { class: 'item' },
    el('b', {}, escaped(planText(item, phrasing))),
    el('span', {}, escaped(minutes)),
  )
  if (item.what.kind !== 'piece' || item.goesOn) return el('section', { class: 'plan' }, first)
  const { like, differences, recipe, odd } = pieceWords(lesson, item.what.piece)
  const note = notes[noteKey(lesson.tune, item.what.piece)]
  const more = [
    ...(note ? [note] : []),
    ...(like ? [like] : []),
    ...[...differences, ...recipe, ...odd].map((t) => `${t}.`),
  ]
  return el('section', { class: 'plan' }, first, ...more.map((t) => p(t, 'sub')))
}

const form: Making = ({ lesson: { tune, phrasing } }) => {
  const map = formMap(tune)
  const parts = map.parts.map((f) => `${f.name || '–'} (${f.measures})${f.times > 1 ? ` ×${f.times}` : ''}`)
  const sum = fill(phrasing.paper.blocks.formSum, {
    measures: map.measures,
    minutes: (map.seconds / 60).toFixed(1),
  })
  return [
    {
      html: el('h2', {}, escaped(phrasing.paper.blocks.form)) + p(parts.join(' → '), 'form') + p(sum, 'sub'),
    },
  ]
}

/** Words with chords: a song part by part, else the words under the melody, four measures a line. */
const lyrics: Making = (context) => {
  const { lesson, naming } = context
  const parts = songParts(lesson.tune, lesson.doc, naming)
  if (parts.length > 0) return songPieces(parts, { paper: context.handout.paper, scale: context.scale })
  const lines = lyricLines(lesson.tune, lesson.doc, naming)
  if (lines.length === 0) return []
  const html = lines.map((line) => sungHtml(line))
  return [head(lesson.phrasing.paper.blocks.lyrics), ...html.map((h) => ({ html: h }))]
}

/** Measures in a row of a chord sheet. */
const CHORD_ROW = 4

/** The chords as they sound, for whoever plays along: over the words of a song, else measure by measure. */
const partner: Making = ({ lesson: { tune, doc, phrasing }, naming, handout, scale }) => {
  const title = head(phrasing.paper.blocks.partner)
  const sung = songParts(tune, doc, naming, 'sounding')
  if (sung.length > 0) return [title, ...songPieces(sung, { paper: handout.paper, scale })]
  const timeline = timelineOf(tune.measures)
  const harmony = harmonyLine(tune, timeline, doc.setup.capo[0]!, doc.transposed)
  const cells = tune.measures.map((m, i) => {
    const start = timeline.starts[i]!
    const own = harmony.filter((h) => h.start >= start && h.start < start + m.length)
    return own.map((h) => (h.sounding ? chordIn(naming, h.sounding) : h.symbol)).join(' ') || '·'
  })
  const rows: string[] = []
  for (let i = 0; i < cells.length; i += CHORD_ROW)
    rows.push(
      el('p', { class: 'chords' }, ...cells.slice(i, i + CHORD_ROW).map((c) => el('span', {}, escaped(c)))),
    )
  return [title, ...rows.map((html) => ({ html }))]
}

const notes: Making = ({ lesson: { phrasing } }, { text = '' }) => {
  const lines = text.split(/\n+/).filter((l) => l.trim() !== '')
  return lines.length === 0
    ? []
    : [head(phrasing.paper.blocks.notes), ...lines.map((l) => ({ html: p(l, 'note') }))]
}

const BLOCKS: Readonly<Record<Block['kind'], Making>> = {
  title,
  setup,
  shapes,
  frames,
  tab,
  steps,
  drills,
  plan,
  form,
  lyrics,
  partner,
  notes,
}
