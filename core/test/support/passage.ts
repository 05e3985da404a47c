import { DEFAULT_PLAYER } from '../../src/instrument/index.ts'
import { ticksAt, timelineOf, type Score } from '../../src/document/index.ts'
import { readTextTab, scoreOfTab } from '../../src/input/index.ts'
import type { Passage } from '../arrange/manual/passages.ts'

const NAMES = { 6: ['e', 'B', 'G', 'D', 'A', 'E'], 4: ['E', 'A', 'D', 'G'] } as const

/** A passage as the text tab that a teacher would paste: eighths, eight a measure. */
export function tabOf({ places, chords = {}, strings = 6 }: Passage): string {
  const rows = NAMES[strings].map((name) => `${name}|`)
  let chordLine = '  '
  const steps = places.split(' ')
  steps.forEach((step, i) => {
    const width = 4
    const at = rows[0]!.length
    const signs = new Map<number, string>()
    if (step !== '-')
      for (const place of step.split('+')) {
        const [, join = '', string = '', fret = ''] = /^([hps]?)(\d)\.(\d+)$/.exec(place)!
        signs.set(Number(string), fret)
        const row = Number(string) - 1
        if (join) rows[row] = rows[row]!.replace(/-$/, join === 's' ? '/' : join)
      }
    const name = chords[i]
    chordLine = chordLine.padEnd(at) + (name ?? '')
    rows.forEach((row, k) => (rows[k] = (row + (signs.get(k + 1) ?? '')).padEnd(at + width, '-')))
    if (i % 8 === 7) rows.forEach((row, k) => (rows[k] = `${row}|`))
  })
  return [chordLine, ...rows].join('\n')
}

/** The passage as a score with the fingers that were found. */
export function scoreOfPassage(passage: Passage): Required<Score> {
  const { tune, arrangement } = scoreOfTab(
    readTextTab(tabOf(passage)),
    'passage',
    DEFAULT_PLAYER,
    passage.name,
  )
  return { tune, arrangement: arrangement! }
}

/** The found fingers in the order of the places. */
export function fingersOf(passage: Passage, { tune, arrangement }: Required<Score>): string[] {
  const timeline = timelineOf(tune.measures)
  const onsets = [...new Set(arrangement.base.notes.map((n) => ticksAt(timeline, n.pos)))].sort(
    (a, b) => a - b,
  )
  const steps = passage.places.split(' ').filter((s) => s !== '-')
  return steps.flatMap((step, i) =>
    step.split('+').map((place) => {
      const string = Number(/(\d)\./.exec(place)![1])
      const note = arrangement.base.notes.find(
        (n) => ticksAt(timeline, n.pos) === onsets[i] && n.place.string === string,
      )
      return String(note?.left ?? '?')
    }),
  )
}
