import { present } from '@velvet-porch/core/invariant'
import {
  chordText,
  mod12,
  nearestChord,
  pitchClass,
  readChordSymbol,
  midiOf,
  transposeChord,
  type ChordReading,
} from '@velvet-porch/core/music'
import type { Setup } from '@velvet-porch/core/instrument'
import {
  barresOf,
  familyId,
  findShapes,
  fullCapo,
  readNote,
  shownOrder,
  soundingPitches,
  filtersToRelax,
  type Shape,
  type ShapeFilters,
} from '@velvet-porch/core/chords'
import { command, withSetupOptions } from './options.ts'
import { setupFrom, type SetupValues } from './setupFrom.ts'
import { UsageError } from './usage.ts'

const RELAX: Readonly<Record<string, string>> = {
  top: '--top',
  bass: '--bass',
  maxStretch: '--max-stretch',
  noBarre: '--no-barre',
  indexBarre: '--index-barre',
  zone: '--zone',
}

interface FilterValues {
  readonly top?: string
  readonly bass?: string
  readonly maxStretch?: string
  readonly barre: boolean
  readonly indexBarre?: boolean
  readonly zone?: string
}

interface Values extends SetupValues, FilterValues {
  readonly all?: boolean
  readonly asShape?: boolean
  readonly json?: boolean
}

/** `porch shapes`: the shapes of a chord in the order in which the app shows them. The chord is the sounding one. */
export const shapesCommand = withSetupOptions(
  command(
    'shapes',
    'chord',
    'Lists the shapes of a sounding chord, in the order in which the app shows them.',
  ),
)
  .option('--top <note>', 'the highest note, as E4')
  .option('--bass <note>', 'the lowest note, as F#')
  .option('--max-stretch <mm>', 'the widest stretch that is allowed')
  .option('--no-barre', 'no finger lies across strings')
  .option('--index-barre', 'the index finger lies across strings')
  .option('--zone <frets>', 'the frets that fingers may press, as 3-8')
  .option('--all', 'rare and hard shapes too')
  .option('--as-shape', 'the chord is the name of the shape above the capo')
  .option('--json', 'prints one JSON object (docs/shapes-json.md)')
  .action(run)

function run(given: string, values: Values): void {
  const setup = setupFrom(values)
  const typed = chordFrom(given)
  const chord = values.asShape ? transposeChord(typed, fullCapo(setup) ?? 0, false) : typed
  const filters = filtersFrom(values)
  const found = findShapes(setup, chord, filters, values.all ?? false)
  const rows = shownOrder(found)
  if (rows.length === 0) throw new UsageError(nothingFound(setup, chord, filters))
  const shapes = [
    ...rows.map((row, i) => shapeJson(setup, row.head, i)),
    ...rows.flatMap((row, i) => row.variants.map((v) => shapeJson(setup, v, i))),
  ]
  if (values.json) process.stdout.write(`${JSON.stringify({ chord: chordText(chord), shapes })}\n`)
  else
    for (const row of rows) {
      const frets = [...row.head.frets].reverse().map((f) => f ?? 'x')
      const fingers = [...row.head.fingers].reverse()
      process.stdout.write(
        `${frets.join('-').padEnd(20)} ${fingers.join(' ').padEnd(13)} frets ${row.head.zone.padEnd(4)} ${`${row.head.stretchMm.toFixed(0)} mm`.padStart(7)}  ${familyId(row.head.family)}${row.variants.length ? `  (${row.variants.length} near-variants)` : ''}\n`,
      )
    }
}

function chordFrom(text: string): ChordReading {
  const reading = readChordSymbol(text)
  if (reading.kind === 'chord') return reading.chord
  const nearest = nearestChord(text)
  throw new UsageError(
    nearest
      ? `"${text}" is not a chord that is understood. The nearest is "${nearest}".`
      : `"${text}" is not a chord that is understood. A chord starts with a note name from A to G, as in "F#m7b5".`,
  )
}

function filtersFrom(values: FilterValues): ShapeFilters {
  const maxStretch = values.maxStretch === undefined ? undefined : Number(values.maxStretch)
  if (maxStretch !== undefined && !(maxStretch > 0))
    throw new UsageError('--max-stretch is a length in mm above 0, for example 80.')
  const top = noteFrom(values.top, '--top')
  if (top && top.octave === undefined)
    throw new UsageError('--top needs a note with its octave, for example E4.')
  const bass = noteFrom(values.bass, '--bass')
  return {
    ...(top ? { top: midiOf({ ...top.name, octave: present(top.octave) }) } : {}),
    ...(bass ? { bass: pitchClass(bass.name) } : {}),
    ...(maxStretch === undefined ? {} : { maxStretch }),
    ...(values.barre ? {} : { noBarre: true }),
    ...(values.indexBarre ? { indexBarre: true } : {}),
    ...(values.zone === undefined ? {} : { zone: zoneFrom(values.zone) }),
  }
}

function zoneFrom(text: string): readonly [number, number] {
  const [, low, high] = /^(\d+)-(\d+)$/.exec(text) ?? []
  if (low === undefined || Number(low) > Number(high))
    throw new UsageError(`--zone "${text}": write the lowest and the highest fret, as 3-8.`)
  return [Number(low), Number(high)]
}

function noteFrom(text: string | undefined, option: string) {
  if (text === undefined) return undefined
  const note = readNote(text)
  if (!note) throw new UsageError(`${option} "${text}" is not a note; write C, F#, Bb or E4.`)
  return note
}

function nothingFound(setup: Setup, chord: ChordReading, filters: ShapeFilters): string {
  const relax = filtersToRelax(setup, chord, filters).map((name) => RELAX[name] ?? name)
  if (relax.length)
    return `No shape of ${chordText(chord)} meets all of this. Leave out ${relax.join(' or ')}.`
  if (filters.top !== undefined && mod12(filters.top) >= 0)
    return `No shape of ${chordText(chord)} meets this. Is the top note a tone of the chord, within the neck?`
  return `No shape of ${chordText(chord)} can be held in this tuning. Try another tuning or capo.`
}

/** The stable object of one shape; arrays from the lowest string. `row` numbers the folded row it belongs to. */
function shapeJson(setup: Setup, shape: Shape, row: number) {
  return {
    frets: [...shape.frets].reverse(),
    fingers: [...shape.fingers].reverse(),
    barres: barresOf(shape.frets, shape.fingers).map((b) => ({
      finger: b.finger,
      fret: b.fret,
      fromString: b.low,
      toString: b.top,
    })),
    midi: soundingPitches(setup, shape.frets),
    zone: shape.zone,
    stretchMm: Math.round(shape.stretchMm * 10) / 10,
    family: familyId(shape.family),
    row,
  }
}
