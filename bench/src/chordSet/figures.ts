import { mod12, readChordSymbol, type ChordReading } from '@velvet-porch/core/music'
import { guitarSetup } from '@velvet-porch/core/instrument'
import { FINGERING_WEIGHTS, GRIP_FEATURES, cheapestFingering } from '@velvet-porch/core/hand'
import {
  enumerateShapes,
  findShapes,
  progressionPath,
  shapeQuery,
  shownOrder,
  USUAL_HIGHEST_FRET,
  type Folded,
  type Shape,
  type ShapeQuery,
} from '@velvet-porch/core/chords'
import { auditChordSet, fingersMakeSense } from './auditSet.ts'
import { fittingHalf, readChordSet, type SetPosition } from './chordSet.ts'
import { fingeringChoices, fingeringFigures } from './fitFingering.ts'
import { chordOf } from './suffixes.ts'

/** Rows of the list that count as shown. */
const SHOWN_ROWS = 40
/** The 36 common chords. */
const COMMON = new Set(['major', 'minor', '7'])

const same = (a: readonly (number | null)[], b: readonly (number | null)[]) => a.every((f, i) => f === b[i])

/** Where a position stands in rows: by the head of a row, and anywhere in it. */
interface Rank {
  readonly position: SetPosition
  readonly byHead: number
  readonly byRow: number
}

function rankIn(rows: readonly Folded<Shape>[], position: SetPosition): Rank {
  return {
    position,
    byHead: rows.findIndex((r) => same(r.head.frets, position.frets)),
    byRow: rows.findIndex((r) => [r.head, ...r.variants].some((s) => same(s.frets, position.frets))),
  }
}

const share = <T>(list: readonly T[], test: (x: T) => boolean) => list.filter(test).length / list.length

/** Fingering figures of both halves with the prices that the app uses. */
export function fingeringReport() {
  const positions = readChordSet()
  const inHalf = fittingHalf(positions)
  const w = Float64Array.from(GRIP_FEATURES, (f) => FINGERING_WEIGHTS[f])
  const { choices, impossible } = fingeringChoices(positions.filter(fingersMakeSense))
  return {
    fitted: fingeringFigures(
      choices.filter((c) => inHalf(c.position)),
      w,
    ),
    heldOut: fingeringFigures(
      choices.filter((c) => !inHalf(c.position)),
      w,
    ),
    impossible,
    senseless: positions.filter((p) => !fingersMakeSense(p)).length,
  }
}

/** Recall and ranking figures. */
export function rankingReport() {
  const setup = guitarSetup()
  const positions = readChordSet()
  const inHalf = fittingHalf(positions)
  const { sound, excluded } = auditChordSet(positions)
  const chords = new Map<string, { chord: ChordReading; positions: SetPosition[] }>()
  for (const position of sound) {
    const key = `${position.key} ${position.suffix}`
    const known = chords.get(key)
    if (known) known.positions.push(position)
    else chords.set(key, { chord: chordOf(position)!, positions: [position] })
  }
  const ranks: Rank[] = []
  let named = 0
  let shownByRow = 0
  let shownByHead = 0
  for (const { chord, positions: wanted } of chords.values()) {
    const shown = shownOrder(findShapes(setup, chord)).slice(0, SHOWN_ROWS)
    const laid = everyShape(shapeQuery(chord, {}))
    for (const position of wanted) {
      const rank = rankIn(shown, position)
      if (rank.byRow >= 0) shownByRow++
      if (rank.byHead >= 0) shownByHead++
      if (
        laid.has(position.frets.join()) &&
        cheapestFingering(setup, position.frets, setup.player) !== undefined
      )
        named++
      if (position.rank === 0) ranks.push(rank)
    }
  }
  const order = (list: readonly Rank[]) => ({
    chords: list.length,
    firstRow: share(list, (r) => r.byRow === 0),
    firstThreeRows: share(list, (r) => r.byRow >= 0 && r.byRow < 3),
    firstHead: share(list, (r) => r.byHead === 0),
    firstThreeHeads: share(list, (r) => r.byHead >= 0 && r.byHead < 3),
  })
  const ordersOf = (list: readonly Rank[]) => ({
    common: order(list.filter((r) => COMMON.has(r.position.suffix))),
    all: order(list),
  })
  return {
    sound: sound.length,
    excluded,
    bySound: soundRecall(positions),
    byName: named / sound.length,
    shownByRow: shownByRow / sound.length,
    shownByHead: shownByHead / sound.length,
    fitted: ordersOf(ranks.filter((r) => inHalf(r.position))),
    heldOut: ordersOf(ranks.filter((r) => !inHalf(r.position))),
    both: ordersOf(ranks),
  }
}

/** Every set of frets that answers a query, fingers not asked yet. */
function everyShape(query: ShapeQuery): Set<string> {
  const setup = guitarSetup()
  const found = new Set<string>()
  enumerateShapes(setup, query, setup.player, (frets) => found.add(frets.join()))
  return found
}

/** Share of all positions (sensible fingers) that are found when their sounding notes are asked for, by no name. */
function soundRecall(positions: readonly SetPosition[]): { recall: number; missed: SetPosition[] } {
  const setup = guitarSetup()
  const asked = positions.filter(fingersMakeSense)
  const bySound = new Map<string, SetPosition[]>()
  for (const p of asked) {
    const key = `${[...new Set(p.midi.map(mod12))].sort((a, b) => a - b).join()} ${mod12(p.midi[0]!)}`
    bySound.set(key, [...(bySound.get(key) ?? []), p])
  }
  const missed: SetPosition[] = []
  for (const [key, wanted] of bySound) {
    const [list = '', bass] = key.split(' ')
    const classes = list.split(',').map(Number)
    const found = everyShape({
      allowed: classes,
      essential: classes.map((pc) => [pc]),
      bass: Number(bass),
      leave: [],
      ring: [],
      lowestFret: 1,
      highestFret: USUAL_HIGHEST_FRET,
      fewestStrings: 3,
    })
    missed.push(
      ...wanted.filter(
        (p) => !found.has(p.frets.join()) || cheapestFingering(setup, p.frets, setup.player) === undefined,
      ),
    )
  }
  return { recall: 1 - missed.length / asked.length, missed }
}

/** Milliseconds a chord over every root and suffix of the set, and for a path through twelve chords. */
export function timingReport() {
  const setup = guitarSetup()
  const positions = readChordSet()
  const suffixes = [...new Set(positions.map((p) => p.suffix))]
  const keys = [...new Set(positions.map((p) => p.key))]
  const chords = keys.flatMap((key) => suffixes.flatMap((suffix) => chordOf({ key, suffix }) ?? []))
  const times = chords.map((chord) => {
    const started = performance.now()
    findShapes(setup, chord)
    return performance.now() - started
  })
  times.sort((a, b) => a - b)
  const path = 'C Am F G Em Am Dm7 G7 C A7 D7 G'.split(' ').flatMap((text) => {
    const reading = readChordSymbol(text)
    return reading.kind === 'chord' ? [reading.chord] : []
  })
  const paths = Array.from({ length: 5 }, () => {
    const started = performance.now()
    progressionPath(setup, path)
    return performance.now() - started
  }).sort((a, b) => a - b)
  return {
    chords: chords.length,
    median: times[times.length >> 1]!,
    p95: times[Math.floor(times.length * 0.95)]!,
    path: paths[2]!,
  }
}
