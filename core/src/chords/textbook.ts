import { pitchClass, mod12 } from '../music/pitch/pitch.ts'
import {
  bassPitchClass,
  chordPitchClasses,
  readChordSymbol,
  transposeChord,
  type ChordReading,
} from '../music/harmony/chordSymbol.ts'
import type { Grip } from '../document/tab.ts'
import type { PinnedShape } from '../document/tune.ts'
import type { LeftFinger } from '../instrument/hand.ts'
import { handFault } from '../hand/grip/handRules.ts'
import { byFinger, fingerNumber, hasFinger, pressedOf, type Pressed } from '../hand/grip/pressed.ts'
import { pitchAt, type Setup } from '../instrument/setup.ts'
import { findShapes, shownOrder } from './findShapes.ts'

/** A chord shape that a hand holds as a whole while melody and bass move inside it. */
export interface HeldShape {
  readonly name: string
  /** Fret by string, string 1 first; null is not played. */
  readonly frets: readonly (number | null)[]
  readonly pressed: readonly Pressed[]
  /** The same by finger, each group from its highest-pitched string on. */
  readonly fingers: readonly (readonly Pressed[])[]
  /** True for the shape that a first method book prints for the chord. */
  readonly textbook: boolean
  /** True for a shape that the teacher pinned: leaving it costs more, its barre and its place on the neck less. */
  readonly pinned?: boolean
  /** What speaks against it as sound; absent for shapes out of books. */
  readonly price?: number
  /** True where the chord's bass is the lowest note; absent for shapes out of books. */
  readonly rooted?: boolean
}

/** Open shapes as first books print them, frets / fingers from string 6 to 1. Common practice, no source. */
const OPEN_SHAPES: Readonly<Record<string, string>> = {
  C: 'x32010/x32010',
  C7: 'x32310/x32410',
  Cmaj7: 'x32000/x32000',
  Cadd9: 'x32030/x21030',
  'C/G': '332010/342010',
  'C/E': '032010/032010',
  D: 'xx0232/xx0132',
  D7: 'xx0212/xx0213',
  Dm: 'xx0231/xx0231',
  Dmaj7: 'xx0222/xx0123',
  Dm7: 'xx0211/xx0211',
  Dsus4: 'xx0233/xx0134',
  Dsus2: 'xx0230/xx0130',
  'D/F#': '2x0232/1x0243',
  'D/A': 'x00232/x00132',
  D6: 'xx0202/xx0102',
  D5: 'xx023x/xx012x',
  E: '022100/023100',
  E7: '020100/020100',
  Em: '022000/023000',
  Em7: '020000/020000',
  Esus4: '022200/023400',
  Emaj7: '021100/031200',
  F: 'xx3211/xx3211',
  Fmaj7: 'xx3210/xx3210',
  'F/C': 'x33211/x34211',
  G: '320003/210003',
  G7: '320001/320001',
  'G/B': 'x20003/x10003',
  Gmaj7: '320002/310002',
  'G/D': 'xx0003/xx0003',
  G6: '320000/210000',
  A: 'x02220/x01230',
  A7: 'x02020/x02030',
  Am: 'x02210/x02310',
  Am7: 'x02010/x02010',
  Amaj7: 'x02120/x02130',
  Asus4: 'x02230/x01240',
  Asus2: 'x02200/x02300',
  Am6: 'x02212/x02314',
  'Am/G': '302210/402310',
  'A/E': '002220/001230',
  B7: 'x21202/x21304',
}

/** Forms moved along the neck, written with their barre at fret 1; the number is the string of the root. */
const MOVABLE_FORMS: Readonly<Record<string, readonly (readonly [string, number])[]>> = {
  '': [
    ['133211/134211', 6],
    ['x13331/x12341', 5],
    ['xx1343/xx1243', 4],
  ],
  m: [
    ['133111/134111', 6],
    ['x13321/x13421', 5],
    ['xx1342/xx1342', 4],
  ],
  '7': [
    ['131211/131211', 6],
    ['x13131/x13141', 5],
    ['xx1323/xx1324', 4],
  ],
  m7: [
    ['131111/131111', 6],
    ['x13121/x13121', 5],
  ],
  maj7: [
    ['1x221x/1x342x', 6],
    ['x13231/x13241', 5],
  ],
  sus4: [
    ['133311/133311', 6],
    ['x13341/x12341', 5],
  ],
  '7sus4': [
    ['131311/131411', 6],
    ['x13141/x13141', 5],
  ],
  '6': [['x13333/x13333', 5]],
  '9': [['x21222/x21333', 5]],
  m7b5: [['x1213x/x1324x', 5]],
  dim: [['x1232x/x1243x', 5]],
  dim7: [
    ['x1202x/x2314x', 5],
    ['xx1212/xx1324', 4],
  ],
  aug: [['xx3221/xx4231', 4]],
  '5': [
    ['133xxx/134xxx', 6],
    ['x133xx/x134xx', 5],
  ],
  m6: [['x1312x/x1412x', 5]],
}

interface Diagram {
  readonly frets: (number | null)[]
  readonly pressed: Pressed[]
}

function readDiagram(text: string): Diagram {
  const [fretText = '', fingerText = ''] = text.split('/')
  const frets: (number | null)[] = []
  const pressed: Pressed[] = []
  for (let string = 1; string <= 6; string++) {
    const fret = fretText[6 - string]!
    const finger = fingerText[6 - string]!
    frets.push(fret === 'x' ? null : Number(fret))
    if (Number(fret) > 0) pressed.push({ string, fret: Number(fret), finger: Number(finger) })
  }
  return { frets, pressed }
}

const shapeName = (chord: ChordReading) => {
  const root = ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B'][pitchClass(chord.root)]!
  const bass = chord.bass
    ? '/' + ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B'][pitchClass(chord.bass)]!
    : ''
  return { plain: root + chord.quality, slashed: root + chord.quality + bass }
}

/**
 * HeldShapes for a chord as the hand calls it (the capo taken off): open shapes first, then the forms moved up the neck.
 * Only shapes whose every note belongs to the chord in this tuning are returned, so other tunings are safe.
 */
export function heldShapesFor(
  shape: ChordReading,
  setup: Setup,
  pins: readonly PinnedShape[] = [],
): HeldShape[] {
  const heldShapes: HeldShape[] = pins.filter((pin) => isFor(pin, shape, setup)).map(pinnedShape)
  // Who pins a shape wants that one.
  if (heldShapes.length > 0) return heldShapes
  const names = shapeName(shape)
  if (setup.instrument.strings !== 6) return foundShapes(names.plain, shape, setup)
  for (const { name, diagram } of openDiagrams(names))
    heldShapes.push(heldShapeOf(name, diagram, 0, heldShapes.length === 0))
  const moved = (MOVABLE_FORMS[shape.quality] ?? []).map(([text, rootString]) => {
    const form = readDiagram(text)
    const rootFret = form.frets[rootString - 1]!
    const wanted = pitchClass(shape.root)
    const shift = mod12(wanted - (openPitchWithoutCapo(setup, rootString) + rootFret))
    return { form, rootString, up: shift + 1 <= 10 ? shift : shift - 12 }
  })
  // A book shows the lowest form first.
  for (const { form, rootString, up } of moved.sort((a, b) => a.up - b.up)) {
    if (up < 0 || up > 9) continue
    const formName = rootString === 6 ? 'E' : rootString === 5 ? 'A' : 'D'
    heldShapes.push(
      heldShapeOf(`${names.plain} (${formName} form, fret ${up + 1})`, form, up, heldShapes.length === 0),
    )
  }
  const fitting = heldShapes.filter((f) => soundsChord(f, shape, setup))
  return fitting.length > 0 ? fitting : foundShapes(names.plain, shape, setup)
}

/** The open shapes of a chord's names, the one with its own bass first. */
const openDiagrams = ({ plain, slashed }: ReturnType<typeof shapeName>) =>
  (slashed === plain ? [plain] : [slashed, plain]).flatMap((name) => {
    const text = OPEN_SHAPES[name]
    return text ? [{ name, diagram: readDiagram(text) }] : []
  })

/** The open shape that a first book prints for a chord as the hand calls it; undefined where it prints none, or none sounds it. */
export function openShapeFor(shape: ChordReading, setup: Setup): HeldShape | undefined {
  const [open] = setup.instrument.strings === 6 ? openDiagrams(shapeName(shape)) : []
  const held = open && heldShapeOf(open.name, open.diagram, 0, true)
  return held && soundsChord(held, shape, setup) ? held : undefined
}

function isFor(pin: PinnedShape, shape: ChordReading, setup: Setup): boolean {
  const reading = readChordSymbol(pin.chord)
  if (reading.kind !== 'chord' || pin.tuning.join() !== setup.tuning.join()) return false
  const { chord } = reading
  return (
    pitchClass(chord.root) === pitchClass(shape.root) &&
    chord.quality === shape.quality &&
    bassPitchClass(chord) === bassPitchClass(shape)
  )
}

function pinnedShape(pin: PinnedShape, index: number): HeldShape {
  return { ...heldShapeWith(`${pin.chord} (pinned)`, pin.frets, pin.fingers, index === 0), pinned: true }
}

/** True where a hand has the fingers of a shape, and the reach. */
export function isHeldBy(setup: Setup, shape: Pick<PinnedShape, 'frets' | 'fingers'>): boolean {
  const { pressed } = heldShapeWith('', shape.frets, shape.fingers, false)
  const { techniques, spans } = setup.player
  const isBarre = pressed.some((p, i) => pressed.findIndex((q) => q.finger === p.finger) < i)
  return (
    pressed.every((p) => hasFinger(techniques, p.finger)) &&
    (techniques.barre || !isBarre) &&
    handFault(setup, spans, pressed) === undefined
  )
}

/** How many found shapes stand in for a chord that no book shape serves (other tunings, rare chords). */
const FOUND_FRAMES = 4

function foundShapes(name: string, shape: ChordReading, setup: Setup): HeldShape[] {
  const sounding = transposeChord(shape, setup.capo[0]!, true)
  return (
    shownOrder(findShapes(setup, sounding, { zone: [1, 9], bass: bassPitchClass(sounding) }))
      .map((row) => row.head)
      .sort((a, b) => a.cost - b.cost)
      .map((s) => heldShapeWith(name, s.frets, s.fingers, false))
      // The solver measures a barre from its farthest string; shapes that only the nearest allows are left out.
      .filter((f) => !handFault(setup, setup.player.spans, f.pressed))
      .slice(0, FOUND_FRAMES)
  )
}

/** A held shape from the frets and fingers of its strings, string 1 first. */
export function heldShapeWith(
  name: string,
  frets: readonly (number | null)[],
  fingers: readonly LeftFinger[],
  textbook: boolean,
): HeldShape {
  const pressed = frets.flatMap((fret, i): Pressed[] => {
    const finger = fingers[i]
    return fret && finger ? [{ string: i + 1, fret, finger: fingerNumber(finger) }] : []
  })
  return heldShapeOf(name, { frets: [...frets], pressed }, 0, textbook)
}

/** A grip as a shape: what is down in it is held on, its other strings are free. */
export function shapeOfGrip(
  { pressed, shape }: Pick<Grip, 'pressed' | 'shape'>,
  setup: Pick<Setup, 'instrument'>,
): HeldShape {
  const down = pressedOf(pressed)
  const frets = Array.from({ length: setup.instrument.strings }, (_, i) => {
    const own = down.filter((p) => p.string === i + 1).map((p) => p.fret)
    return own.length > 0 ? Math.max(...own) : null
  })
  return heldShapeOf(shape ?? '', { frets, pressed: down }, 0, false)
}

function heldShapeOf(name: string, diagram: Diagram, up: number, textbook: boolean): HeldShape {
  const pressed = diagram.pressed.map((p) => ({ ...p, fret: p.fret + up }))
  return {
    name,
    frets: diagram.frets.map((f) => (f === null ? null : f + up)),
    pressed,
    fingers: byFinger(pressed),
    textbook,
  }
}

function openPitchWithoutCapo(setup: Setup, string: number): number {
  return setup.tuning[string - 1]!
}

const soundsChord = (heldShape: HeldShape, shape: ChordReading, setup: Setup): boolean =>
  soundsAsChord(heldShape.frets, shape, setup)

/** True where every note of a shape belongs to a chord, as the hand behind the capo calls it. */
export function soundsAsChord(frets: readonly (number | null)[], shape: ChordReading, setup: Setup): boolean {
  const capo = setup.capo[0]!
  const allowed = chordPitchClasses(shape).map((pc) => mod12(pc + capo))
  return frets.every(
    (fret, i) => fret === null || allowed.includes(mod12(pitchAt(setup, { string: i + 1, fret }))),
  )
}
