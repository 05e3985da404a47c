import { mod12, QUARTER, readChordSymbol } from '@velvet-porch/core/music'
import { setupOf, withKindHand, type LeftFinger, type Setup } from '@velvet-porch/core/instrument'
import { openShapeFor } from '@velvet-porch/core/chords'
import { handFault, pressedOf } from '@velvet-porch/core/hand'
import type { TabJson } from '@velvet-porch/core/output'
import { isPc, share, type Page, type PageNote, type Share } from './page.ts'

/** Fills that sound the very place of the fill before them. */
export function repeatedFills({ onsets }: Page): Share {
  const fills = onsets.flatMap((o) => o.notes.filter((n) => n.role === 'fill'))
  return share(fills.slice(1).map((n, i) => n.string === fills[i]!.string && n.fret === fills[i]!.fret))
}

/** Onsets of one fill alone that were struck twice before it, with nothing between. */
export function hammeredFills({ onsets }: Page): Share {
  const alone = onsets.map(({ notes: [n, ...others] }) =>
    others.length === 0 && n?.role === 'fill' ? `${n.string}/${n.fret}` : undefined,
  )
  return share(onsets.map((_, i) => !!alone[i] && alone[i] === alone[i - 1] && alone[i] === alone[i - 2]))
}

/** Full measures in which three strings or fewer are struck: a pickup, and what is left of a measure after one, is none. */
export function thinMeasures({ onsets, json }: Page): Share {
  const usual = Math.max(...json.tune.measures.map((m) => m.length))
  const struck = new Map<number, Set<number>>()
  for (const { measure, notes } of onsets.filter((o) => json.tune.measures[o.measure]!.length === usual))
    for (const n of notes) struck.set(measure, (struck.get(measure) ?? new Set()).add(n.string))
  return share([...struck.values()].map((strings) => strings.size <= 3))
}

/** Onsets in runs of four and more that the thumb plucks alone. */
export function thumbRuns({ onsets }: Page): Share {
  let run = 0
  const inRun = onsets.map(() => false)
  onsets.forEach(({ notes }, i) => {
    run = notes.every((n) => n.rightFinger === 'p') ? run + 1 : 0
    if (run >= 4) for (let k = i - run + 1; k <= i; k++) inRun[k] = true
  })
  return share(inRun)
}

/** True where the last chord of a stretch is struck as an ending: root low down, chord above it, at most one onset after. */
export function endsWell(page: Page, from: number, to: number, least: number): boolean {
  const inside = page.onsets.filter((o) => o.at >= from && o.at < to)
  return inside.slice(-2).some(({ at, notes }) => {
    const chord = page.chords.findLast((c) => c.start <= at)
    const [low] = notes
    const strings = new Set(notes.map((n) => n.string))
    return (
      chord !== undefined &&
      low !== undefined &&
      isPc(low, chord.bass) &&
      low.string >= lowStringOf(page) &&
      strings.size >= least
    )
  })
}

/** Strings from this one on carry a bass. */
const lowStringOf = ({ json }: Page) => (json.setup.tuning.length > 4 ? 4 : 3)

/** The end of the tune, where its last chord sounds. */
export const ending = (page: Page, least: number): Share => {
  const last = page.chords.at(-1)
  return last ? share([endsWell(page, last.start, page.end, least)]) : share([])
}

/** Changes of chord under which a low string sounds, struck there or held on. */
export function bassUnderChanges(page: Page): Share {
  return share(
    page.chords
      .filter((c) => page.onsets.some((o) => o.at === c.start))
      .map((c) =>
        page.json.notes.some(
          (n) => n.string >= lowStringOf(page) && n.start <= c.start && n.start + n.duration > c.start,
        ),
      ),
  )
}

/** Changes of chord at which at most two notes are struck. */
export const thinChanges = (page: Page): Share =>
  share(
    page.chords.flatMap((c) => {
      const onset = page.onsets.find((o) => o.at === c.start)
      return onset ? [onset.notes.length <= 2] : []
    }),
  )

/** Of three notes and more that are struck together, those that are one tone in octaves. */
export const bareOctaves = ({ onsets }: Page): Share =>
  share(
    onsets
      .filter((o) => o.notes.length >= 3)
      .map((o) => new Set(o.notes.map((n) => mod12(n.midi))).size === 1),
  )

/** Chords without an open shape whose book form is a barre: bass roots struck at fret 5 and above. */
const BARRED = /^(B|Bm|Bb|Bbm|Cm|C#m|F#|F#m|Gm|G#m|Ab|Db|Eb|Fm|Bm7|Cm7|F#m7|Gm7)$/

const barredChords = ({ chords }: Page) =>
  chords.filter((c) => BARRED.test(c.symbol.replace('♭', 'b').replace('♯', '#')))

export function highRoots(page: Page): Share {
  return share(
    barredChords(page).flatMap((c) => {
      const bass = page.onsets.find((o) => o.at === c.start)?.notes[0]
      return bass && bass.string >= lowStringOf(page) && isPc(bass, c.root) ? [bass.fret >= 5] : []
    }),
  )
}

/** The same, where a low root lies within a hand's reach of the melody that comes with it, and the page has it not. */
export function highRootsNeedlessly(page: Page): Share {
  const { tuning, capo } = page.json.setup
  const open = (string: number) => tuning[tuning.length - string]! + capo
  return share(
    barredChords(page).flatMap((c) => {
      const notes = page.onsets.find((o) => o.at === c.start)?.notes ?? []
      const bass = notes[0]
      if (!bass || bass.string < lowStringOf(page) || !isPc(bass, c.root)) return []
      const melody = notes.find((n) => n.role === 'melody')
      const strings = tuning.map((_, i) => i + 1)
      const lowRoots = strings
        .filter((s) => s >= lowStringOf(page))
        .flatMap((s) =>
          [0, 1, 2, 3, 4].flatMap((fret) => (isPc({ midi: open(s) + fret }, c.root) ? [{ s, fret }] : [])),
        )
      const reachable = lowRoots.some(
        (root) =>
          !melody ||
          strings.some((s) => {
            const fret = melody.midi - open(s)
            return s < root.s && fret >= 0 && (fret === 0 || Math.abs(fret - root.fret) <= HAND_FRETS)
          }),
      )
      return [bass.fret >= 5 && reachable]
    }),
  )
}

/** Frets between index and little finger of an easy hand. */
const HAND_FRETS = 3

/** Of chord changes with an open book shape, those whose struck notes have its fingers. */
export function bookFingers(page: Page): Share {
  const setup = setupFromPage(page)
  return share(
    page.chords.flatMap((c) => {
      const read = readChordSymbol(c.symbol)
      const book = read.kind === 'chord' ? openShapeFor(read.chord, setup) : undefined
      if (!book) return []
      const struck = page.onsets.find((o) => o.at === c.start)?.notes ?? []
      if (struck.length === 0) return []
      return [
        struck
          .filter((n) => n.fret > 0 && book.frets[n.string - 1] === n.fret)
          .every((n) => book.pressed.find((p) => p.string === n.string)?.finger === n.leftFinger),
      ]
    }),
  )
}

const setupFromPage = ({ json: { setup } }: Page): Setup =>
  setupOf(setup.instrument ?? 'guitar', [...setup.tuning].reverse(), { fret: setup.capo })

/** Melody notes on strings 1 and 2. */
export const melodyOnTop = ({ json }: Page): Share =>
  share(json.notes.filter((n) => n.role === 'melody').map((n) => n.string <= 2))

/** The same, of the notes that these strings have without a finger above fret 12. */
export const melodyOnTopWhereItCan = ({ json }: Page): Share =>
  share(
    json.notes
      .filter((n) => n.role === 'melody' && n.midi >= json.setup.tuning.at(-2)! + json.setup.capo)
      .map((n) => n.string <= 2),
  )

/** Highest fret of a page at most 4. */
export const belowFifthFret = ({ json }: Page): Share => share(json.notes.map((n) => n.fret < 5))

/** Melody notes struck as blocks of four and more. */
export const fullBlocks = ({ onsets }: Page): Share =>
  share(onsets.filter((o) => o.notes.some((n) => n.role === 'melody')).map((o) => o.notes.length >= 4))

/** Blocks struck again under one chord whose lower voices are those of the block before. */
export function lowerVoicesKept(page: Page): Share {
  const blocks = page.onsets.filter((o) => o.notes.length >= 3)
  return share(
    blocks.slice(1).flatMap((block, i) => {
      const before = blocks[i]!
      if (chordAt(page, before.at) !== chordAt(page, block.at)) return []
      const places = new Set(before.notes.map(placeOf))
      return [block.notes.filter((n) => n.role !== 'melody').every((n) => places.has(placeOf(n)))]
    }),
  )
}

/**
 * Tones that the ear waits for at a change of chord: a suspended fourth that is to become its chord's third, a seventh that is to become the
 * third of the chord a fourth above. Of those that sound below the tune, the ones that go down by a step at the change.
 */
export function tonesLed(page: Page): Share {
  return share(
    page.chords.slice(1).flatMap((to, i) => {
      const from = page.chords[i]!
      const third = [3, 4].find((t) => to.tones.includes((to.root + t) % 12))
      const has = (semitones: number) => from.tones.includes((from.root + semitones) % 12)
      const sus = to.root === from.root && has(5) && !has(3) && !has(4) ? 5 : undefined
      const seventh =
        (from.root + 5) % 12 === to.root
          ? [10, 11].find((s) => from.tones.includes((from.root + s) % 12))
          : undefined
      const degree = sus ?? seventh
      if (third === undefined || degree === undefined || from.end !== to.start) return []
      const aim = (to.root + third) % 12
      const before = page.onsets.findLast((o) => o.at >= from.start && o.at < to.start && o.notes.length >= 3)
      const after = page.onsets.find((o) => o.at === to.start && o.notes.length >= 3)
      if (!before || !after) return []
      return before.notes
        .filter((n) => n.role !== 'melody' && isPc(n, (from.root + degree) % 12))
        .map((n) => after.notes.some((m) => isPc(m, aim) && n.midi - m.midi >= 1 && n.midi - m.midi <= 2))
    }),
  )
}

/** Chords struck under a melody note that goes on by a step into its chord: an upper voice has that tone already. */
export function resolvedEarly(page: Page): Share {
  const sung = page.onsets.flatMap((o) => {
    const top = o.notes.find((n) => n.role === 'melody')
    return top ? [{ o, top }] : []
  })
  return share(
    sung.flatMap(({ o, top }, i) => {
      const chord = chordAt(page, o.at)
      const next = sung[i + 1]
      if (!chord || !next || next.o.at >= chord.end || o.notes.length < 3) return []
      const isTone = (n: PageNote) => chord.tones.includes(n.midi % 12)
      if (isTone(top) || !isTone(next.top) || Math.abs(next.top.midi - top.midi) > 2) return []
      return [o.notes.slice(1).some((n) => n !== top && isPc(n, next.top.midi % 12))]
    }),
  )
}

/** Steps of a tune in double stops under which the second voice leaps along its string. */
export function leapingSeconds({ onsets }: Page): Share {
  const stops = onsets.map(({ notes }) => ({
    top: notes.find((n) => n.role === 'melody'),
    second: notes.find((n) => n.role === 'harmony'),
  }))
  return share(
    stops.slice(1).flatMap((b, i) => {
      const a = stops[i]!
      if (!a.top || !a.second || !b.top || !b.second) return []
      const step = Math.abs(a.top.midi - b.top.midi)
      if (step === 0 || step > 2) return []
      return [a.second.string === b.second.string && Math.abs(a.second.fret - b.second.fret) >= 3]
    }),
  )
}

const placeOf = (n: PageNote) => `${n.string}.${n.fret}`
const chordAt = ({ chords }: Page, at: number) => chords.findLast((c) => c.start <= at)

/** Beats with a bass, of which nothing else is heard: no string above it is struck before the next beat. */
export function loneBasses(page: Page): Share {
  return share(
    page.json.tune.measures.flatMap((m) => {
      const beat =
        m.length / Math.max(1, Math.round((m.length / QUARTER) * (m.metre.endsWith('8') ? 2 / 3 : 1)))
      const beats = Array.from({ length: Math.round(m.length / beat) }, (_, i) => m.start + i * beat)
      return beats.flatMap((from) => {
        const struck = page.onsets.filter((o) => o.at >= from && o.at < from + beat).flatMap((o) => o.notes)
        return struck.some((n) => n.role === 'bass') ? [struck.every((n) => n.role === 'bass')] : []
      })
    }),
  )
}

/** Basses that are neither the chord's root nor one of its tones: they lead from one chord to the next. */
export function passingBasses(page: Page): Share {
  return share(
    page.onsets.flatMap((o) => {
      const chord = chordAt(page, o.at)
      const bass = o.notes.find((n) => n.role === 'bass')
      return bass && chord ? [!chord.tones.some((pc) => isPc(bass, pc))] : []
    }),
  )
}

/** Melody notes that the fretting hand sounds. */
export const slurred = ({ json }: Page): Share =>
  share(
    json.notes
      .filter((n) => n.role === 'melody')
      .map((n) => ['hammer', 'pull', 'slide'].includes(n.technique)),
  )

/**
 * Measures in which a finger that left a string comes back to it under one chord, though neither finger nor string was needed for
 * anything else meanwhile, and a hand could have held both.
 */
export function putBack(page: Page): Share {
  const grips = page.json.grips ?? []
  const measures = new Set<number>()
  const lifted = new Map<
    number,
    { readonly at: number; readonly finger: LeftFinger; readonly fret: number; readonly pc: number }
  >()
  const { tuning, capo } = page.json.setup
  const pcOf = (string: number, fret: number) => mod12(tuning[tuning.length - string]! + capo + fret)
  grips.forEach((grip, i) => {
    for (const p of grips[i - 1]?.pressed ?? [])
      if (!grip.pressed.some((q) => q.string === p.string && q.fret === p.fret))
        lifted.set(p.string, {
          at: grip.start,
          finger: p.finger,
          fret: p.fret,
          pc: pcOf(p.string, p.fret),
        })
    for (const p of grip.pressed) {
      for (const [string, was] of lifted)
        if (was.finger === p.finger && (string !== p.string || was.fret !== p.fret)) lifted.delete(string)
      const was = lifted.get(p.string)
      if (!was) continue
      lifted.delete(p.string)
      const needed = page.json.notes.some(
        (n) => n.string === p.string && n.start >= was.at && n.start < grip.start && n.fret !== p.fret,
      )
      const chord = chordAt(page, was.at)
      const sameChord = chord === chordAt(page, grip.start)
      // What is lifted as a chord begins that it does not belong to is no fault.
      if (chord?.start === was.at && !chord.tones.includes(was.pc)) continue
      const could = grips
        .filter((g) => g.start >= was.at && g.start < grip.start)
        .every(({ pressed }) => canHold(page, [...pressed, { ...p, finger: was.finger }]))
      if (was.fret === p.fret && !needed && sameChord && was.at < grip.start && could)
        measures.add(page.json.tune.measures.findLastIndex((m) => m.start <= grip.start))
    }
  })
  return { hits: measures.size, of: page.json.tune.measures.length }
}

const canHold = ({ json }: Page, pressed: NonNullable<TabJson['grips']>[number]['pressed']): boolean => {
  const { instrument = 'guitar', tuning, capo, player } = json.setup
  // At the end of its reach a hand would rather lift a finger than hold it.
  const setup = withKindHand(setupOf(instrument, [...tuning].reverse(), { fret: capo }, player))
  return handFault(setup, setup.player.spans, pressedOf(pressed)) === undefined
}

/**
 * Fingers that come down off the change of a chord on strings of which none sounds before they leave it. A finger that lies across
 * is one finger: it lands for any of its strings.
 */
export function idleLandings(page: Page): Share {
  const grips = page.json.grips ?? []
  const isDown = (g: (typeof grips)[number] | undefined, string: number, fret: number) =>
    g?.pressed.some((q) => q.string === string && q.fret === fret) === true
  return share(
    grips.flatMap((grip, i) => {
      if (i === 0 || page.chords.some((c) => c.start === grip.start)) return []
      const landed = grip.pressed.filter((p) => !isDown(grips[i - 1], p.string, p.fret))
      const fingers = [...new Set(landed.map((p) => p.finger))]
      return fingers.map((finger) =>
        landed
          .filter((p) => p.finger === finger)
          .every(({ string, fret }) => {
            const until = grips.slice(i + 1).find((g) => !isDown(g, string, fret))?.start ?? page.end
            return !page.json.notes.some(
              (n) => n.string === string && n.start >= grip.start && n.start < until,
            )
          }),
      )
    }),
  )
}

/** The share of the notes of the fuller page that the other has at the same time and place, short notes before others among them. */
export function sharedNotes(a: Page, b: Page): Share {
  const keys = (p: Page) =>
    new Set(
      p.json.notes.flatMap((n) => [
        `${n.start} ${n.string}.${n.fret}`,
        ...(n.graces ?? []).map((g) => `before ${n.start} ${g.string}.${g.fret}`),
      ]),
    )
  const [x, y] = [keys(a), keys(b)]
  const both = [...x].filter((k) => y.has(k)).length
  return { hits: both, of: Math.max(x.size, y.size) }
}

/** Changes of chord that are strummed: those over all courses. */
export const fullStrums = (page: Page): Share =>
  share(
    page.chords.flatMap((c) => {
      const struck = page.onsets.find((o) => o.at === c.start)?.notes ?? []
      if (!struck.some((n) => n.technique === 'brush')) return []
      return [new Set(struck.map((n) => n.string)).size === page.json.setup.tuning.length]
    }),
  )

/** True where strokes are damped by the fretting hand. */
export const chops = ({ json }: Page): Share => share([json.notes.some((n) => n.technique === 'muted')])

/** Melody notes of two beats and more that tremble. */
export const trembling = ({ json }: Page): Share =>
  share(
    json.notes
      .filter((n) => n.role === 'melody' && n.duration >= 2 * QUARTER)
      .map((n) => n.technique === 'tremolo'),
  )

/** Double stops of which no string is open. */
export const closedStops = ({ onsets }: Page): Share =>
  share(
    onsets
      .filter((o) => o.notes.length === 2 && o.notes.some((n) => n.role === 'melody'))
      .map((o) => o.notes.every((n) => n.fret > 0)),
  )

/** Grips with ring and little finger four frets and more apart. */
export const wideLastFingers = ({ json }: Page): Share =>
  share(
    (json.grips ?? []).map(({ pressed }) => {
      const [third, last] = [3, 4].map((finger) => pressed.find((p) => p.finger === finger))
      return third !== undefined && last !== undefined && Math.abs(last.fret - third.fret) >= 4
    }),
  )

/** True where two strings of a drone are struck together, besides the tune, as often as every second measure. */
export function doubleDrone({ onsets, json }: Page): Share {
  const measures = new Set(
    onsets.filter((o) => o.notes.filter((n) => n.role !== 'melody').length >= 2).map((o) => o.measure),
  )
  return share([measures.size >= json.tune.measures.length / 2])
}
