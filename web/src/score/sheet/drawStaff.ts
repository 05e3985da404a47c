import { groupBy } from 'es-toolkit'
import {
  Accidental,
  Beam,
  Dot,
  Font,
  Fraction,
  ModifierContext,
  Renderer,
  Stave,
  StaveNote,
  StaveTie,
  Stem,
  TickContext,
  Tuplet,
  VexFlow,
  type RenderContext,
} from 'vexflow/core'
import bravura from '@vexflow-fonts/bravura/bravura.woff2?url'
import { isCompound, midiOf, missingHead, WHOLE } from '@velvet-porch/core/music'
import type { TuneDoc } from '@velvet-porch/core/document'
import {
  isNewMetre,
  staffLine,
  type StaffHead,
  type StaffMeasure,
  type StaffSign,
} from '@velvet-porch/core/output'
import { xAt, type SystemLayout } from '@velvet-porch/core/output/layout'

let loaded: Promise<void> | undefined

/** Loads the music font once; widths measured before that would be wrong. */
export function musicFont(): Promise<void> {
  loaded ??= Font.load('Bravura', bravura).then(() => VexFlow.setFonts('Bravura'))
  return loaded
}

/** Where and how a staff is drawn: two voices once it is arranged, an 8 under the clef where it is written an octave up. */
export interface StaffPage {
  readonly width: number
  readonly height: number
  /** Height of the top line, in px. */
  readonly top: number
  /** Size of the music, 1 being the notation font's own: lines 10 px apart. */
  readonly scale: number
  readonly arranged: boolean
  readonly octaveClef: boolean
}

interface Placed {
  readonly sign: StaffSign
  readonly note: StaveNote
  readonly voice: 'upper' | 'lower'
}

const BASE: Readonly<Record<number, string>> = {
  1: 'w',
  2: 'h',
  4: 'q',
  8: '8',
  16: '16',
  32: '32',
  64: '64',
  128: '128',
}
const SIGN: Readonly<Record<string, string>> = { '-2': 'bb', '-1': 'b', '0': 'n', '1': '#', '2': '##' }

/**
 * Draws the staff of one system into an element. Every note stands at the x of the layout contract; the notation
 * library only draws shapes.
 */
export function drawStaff(
  target: HTMLDivElement,
  system: SystemLayout,
  tune: TuneDoc,
  staff: readonly StaffMeasure[],
  page: StaffPage,
): void {
  target.replaceChildren()
  const renderer = new Renderer(target, Renderer.Backends.SVG)
  const { scale, width, height, top } = page
  renderer.resize(width, height)
  const context = renderer.getContext()
  context.scale(scale, scale)
  context.setFillStyle('currentColor')
  context.setStrokeStyle('currentColor')
  const pendingTies: { upper: Placed | undefined; lower: Placed | undefined } = {
    upper: undefined,
    lower: undefined,
  }
  system.measures.forEach((placed, k) => {
    const measure = tune.measures[placed.index]!
    const signs = staff[placed.index]!
    const before = tune.measures[placed.index - 1]
    const first = k === 0 && system.head > 0
    const left = first ? 0 : placed.x
    const stave = new Stave(left / scale, top / scale - 40, (placed.x + placed.width - left) / scale, {
      leftBar: false,
      rightBar: false,
    })
    stave.setStyle({ fillStyle: 'currentColor', strokeStyle: 'currentColor' })
    if (first) stave.addClef('treble', 'default', page.octaveClef ? '8vb' : undefined)
    if (first || before?.key.fifths !== measure.key.fifths) stave.addKeySignature(keySpec(signs.key.fifths))
    if (isNewMetre(measure, before))
      stave.addTimeSignature(
        measure.metre.display === 'cut'
          ? 'C|'
          : measure.metre.display === 'common'
            ? 'C'
            : `${measure.metre.num}/${measure.metre.den}`,
      )
    stave.setContext(context).draw()
    // Where nothing stands below the melody its stems turn as they like.
    const twoVoices = page.arranged && signs.lower.length > 0
    const notes = [
      ...build(signs.upper, 'upper', tune, twoVoices),
      ...build(signs.lower, 'lower', tune, true),
    ]
    standAt(notes, stave, (sign) => xAt(placed, sign.tick, measure.length) / scale)
    drawVoices(context, notes, tune, measure, twoVoices)
    drawTies(context, notes, pendingTies)
  })
}

const keySpec = (fifths: number) =>
  ['Cb', 'Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#'][
    Math.max(-7, Math.min(7, fifths)) + 7
  ]!

function build(
  signs: readonly StaffSign[],
  voice: 'upper' | 'lower',
  tune: TuneDoc,
  twoVoices: boolean,
): Placed[] {
  return signs.flatMap((sign): Placed[] => {
    if (sign.kind === 'filler') return []
    const duration = BASE[sign.base] ?? 'q'
    // Rests of the lower voice stand below the middle line.
    const keys = sign.kind === 'note' ? sign.heads.map(keySpecOf) : [voice === 'lower' ? 'd/4' : 'b/4']
    const wholeRest =
      sign.kind === 'rest' && sign.ticks >= WHOLE * 0.7 && !tune.tuplets.some((t) => t.id === sign.tupletId)
    const note = new StaveNote({
      keys,
      duration: `${wholeRest ? 'w' : duration}${sign.kind === 'rest' ? 'r' : ''}`,
      dots: sign.dots,
      ...(twoVoices ? { stemDirection: voice === 'lower' ? Stem.DOWN : Stem.UP } : { autoStem: true }),
    })
    sign.heads.forEach(({ accidental }, i) => {
      if (accidental !== undefined) note.addModifier(new Accidental(SIGN[String(accidental)]!), i)
    })
    if (sign.dots > 0) Dot.buildAndAttach([note], { all: true })
    note.setStyle({ fillStyle: 'currentColor', strokeStyle: 'currentColor' })
    note.setLedgerLineStyle({ strokeStyle: 'currentColor', lineWidth: 1.2 })
    return [{ sign, note, voice }]
  })
}

/** A head as the notation library names it: a stroke that sounds no pitch is a cross. */
const keySpecOf = ({ pitch, muted }: StaffHead) =>
  `${pitch.step.toLowerCase()}/${pitch.octave}${muted ? '/X2' : ''}`

/** Gives every note a tick context of its own at the contract's x; notes of one moment share their modifiers. */
function standAt(notes: readonly Placed[], stave: Stave, x: (sign: StaffSign) => number): void {
  for (const group of Object.values(groupBy(notes, (p) => p.sign.tick))) {
    const modifiers = new ModifierContext()
    for (const { note } of group) {
      note.setStave(stave)
      note.addToModifierContext(modifiers)
    }
    modifiers.preFormat()
    standAside(group)
    for (const { note, sign } of group) {
      const context = new TickContext()
      context.addTickable(note)
      context.preFormat()
      context.setX(0)
      context.setX(x(sign) - note.getAbsoluteX() - 5)
    }
  }
}

/**
 * Heads of two voices that are a step apart would cover each other: the lower voice stands aside, to the right. The
 * notation library looks at the lowest head of each voice alone.
 */
function standAside(group: readonly Placed[]): void {
  const upper = group.find((p) => p.voice === 'upper')
  const lower = group.find((p) => p.voice === 'lower')
  if (!upper || !lower || lower.note.getXShift() > 0) return
  const steps = (p: Placed) => p.sign.heads.map((h) => staffLine(h.pitch))
  if (steps(upper).some((u) => steps(lower).some((l) => Math.abs(u - l) === 1)))
    lower.note.setXShift(upper.note.getVoiceShiftWidth() + 2)
}

function drawVoices(
  context: RenderContext,
  notes: readonly Placed[],
  tune: TuneDoc,
  measure: TuneDoc['measures'][number],
  twoVoices: boolean,
): void {
  for (const voice of ['upper', 'lower'] as const) {
    const own = notes.filter((n) => n.voice === voice)
    const beat = isCompound(measure.metre)
      ? new Fraction(3, 8)
      : new Fraction(1, measure.metre.den >= 8 ? 4 : measure.metre.den)
    const beams = beamGroups(own, measure, beat).map(
      (group) =>
        new Beam(
          group.map((p) => p.note),
          !twoVoices,
        ),
    )
    const tuplets = tupletGroups(own, tune)
    for (const { note } of own) note.setContext(context).drawWithStyle()
    for (const beam of beams) {
      beam.setStyle({ fillStyle: 'currentColor', strokeStyle: 'currentColor' })
      beam.setContext(context).drawWithStyle()
    }
    for (const tuplet of tuplets) tuplet.setContext(context).draw()
  }
}

/** Runs of eighths and shorter inside one beat (inside half a measure of 4/4 for plain eighths). */
function beamGroups(
  notes: readonly Placed[],
  measure: TuneDoc['measures'][number],
  beat: Fraction,
): Placed[][] {
  const unit = (WHOLE * beat.numerator) / beat.denominator
  const offset = missingHead(measure)
  const groups: Placed[][] = []
  let run: Placed[] = []
  const flush = () => {
    if (run.length > 1) groups.push(run)
    run = []
  }
  for (const p of notes) {
    const beamed = p.sign.kind === 'note' && p.sign.base >= 8
    const before = run.at(-1)
    const sameBeat =
      before && Math.floor((before.sign.tick + offset) / unit) === Math.floor((p.sign.tick + offset) / unit)
    const joined = before && before.sign.tick + before.sign.ticks === p.sign.tick
    if (!beamed || !sameBeat || !joined) flush()
    if (beamed) run.push(p)
  }
  flush()
  return groups
}

function tupletGroups(notes: readonly Placed[], tune: TuneDoc): Tuplet[] {
  const ids = [...new Set(notes.flatMap((p) => (p.sign.tupletId ? [p.sign.tupletId] : [])))]
  return ids.flatMap((id) => {
    const group = notes.filter((p) => p.sign.tupletId === id)
    const spec = tune.tuplets.find((t) => t.id === id)
    if (!spec || group.length < 2) return []
    return [
      new Tuplet(
        group.map((p) => p.note),
        {
          numNotes: spec.actual,
          notesOccupied: spec.normal,
          ratioed: false,
          bracketed: group.some((p) => p.sign.base < 8),
        },
      ),
    ]
  })
}

function drawTies(
  context: RenderContext,
  notes: readonly Placed[],
  pending: { upper: Placed | undefined; lower: Placed | undefined },
): void {
  for (const voice of ['upper', 'lower'] as const) {
    for (const p of notes.filter((n) => n.voice === voice && n.sign.kind === 'note')) {
      const from = pending[voice]
      if (from) {
        const [firstIndexes, lastIndexes] = tiedHeads(from.sign, p.sign)
        if (firstIndexes.length > 0)
          new StaveTie({ firstNote: from.note, lastNote: p.note, firstIndexes, lastIndexes })
            .setContext(context)
            .draw()
      }
      pending[voice] = p.sign.heads.some((h) => h.tied) ? p : undefined
    }
  }
}

/** Places of the heads that are tied in two signs that follow each other, the same number in both. */
function tiedHeads(from: StaffSign, to: StaffSign): [number[], number[]] {
  const pairs = from.heads.flatMap((head, i) => {
    const j = head.tied ? to.heads.findIndex((h) => midiOf(h.pitch) === midiOf(head.pitch)) : -1
    return j < 0 ? [] : [[i, j] as const]
  })
  return [pairs.map(([i]) => i), pairs.map(([, j]) => j)]
}
