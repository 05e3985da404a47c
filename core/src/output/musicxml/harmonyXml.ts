import type { HeldFrets } from '../../lesson/steps/heldShape.ts'
import type { ChordMark } from '../../document/tune.ts'
import { transposeChord } from '../../music/harmony/chordSymbol.ts'
import type { NoteName } from '../../music/pitch/pitch.ts'
import { el, leaf } from '../markup.ts'
import { kindOfChord } from './chordKinds.ts'

/** Frets that a box shows at least. */
const BOX_FRETS = 4

/**
 * A chord over the staff as it sounds, with its box where a shape is held.
 * @param offset units of the file by which it stands behind what comes next
 */
export function harmonyXml(
  { parsed, symbol, origin }: ChordMark,
  transposed: number,
  flats: boolean,
  held: HeldFrets | undefined,
  offset: number,
): string {
  const later = offset === 0 ? '' : leaf('offset', offset)
  if (!parsed)
    return /^n\.?\s*c\.?$/i.test(symbol)
      ? el('harmony', {}, noRoot(), el('kind', { text: symbol }, 'none'), later)
      : el('harmony', {}, noRoot(), el('kind', { text: symbol }, 'other'), later)
  const chord = transposeChord(parsed, transposed, flats)
  const { kind, degrees } = kindOfChord(chord)
  return el(
    'harmony',
    // Nobody wrote it: it is what the melody implies.
    { type: origin === 'suggested' ? 'implied' : undefined },
    el('root', {}, ...nameXml('root', chord.root)),
    el('kind', { text: chord.quality }, kind),
    chord.bass ? el('bass', {}, ...nameXml('bass', chord.bass)) : '',
    ...degrees.map((d) =>
      el(
        'degree',
        { 'print-object': 'no' },
        leaf('degree-value', d.value),
        leaf('degree-alter', d.alter),
        leaf('degree-type', d.type),
      ),
    ),
    held ? frameXml(held) : '',
    later,
  )
}

/** A root that is not printed: the schema wants one. */
const noRoot = (): string => el('root', {}, el('root-step', { text: '' }, 'C'))

const nameXml = (prefix: 'root' | 'bass', { step, alter }: NoteName): string[] => [
  leaf(`${prefix}-step`, step),
  ...(alter === 0 ? [] : [leaf(`${prefix}-alter`, alter)]),
]

/** A chord box: only strings that sound are named, as the schema has it. */
function frameXml({ frets, fingers }: HeldFrets): string {
  const pressed = frets.filter((f): f is number => f !== null && f > 0)
  const highest = Math.max(BOX_FRETS, ...pressed)
  const first = highest <= BOX_FRETS + 1 ? 1 : Math.min(...pressed)
  const notes = frets.flatMap((fret, i) => {
    if (fret === null) return []
    const finger = fingers[i]
    return [
      el(
        'frame-note',
        {},
        leaf('string', i + 1),
        leaf('fret', fret),
        ...(finger === undefined || finger === 0 ? [] : [leaf('fingering', finger)]),
      ),
    ]
  })
  return el(
    'frame',
    {},
    leaf('frame-strings', frets.length),
    leaf('frame-frets', Math.max(BOX_FRETS, highest - first + 1)),
    ...(first > 1 ? [leaf('first-fret', first)] : []),
    ...notes,
  )
}
