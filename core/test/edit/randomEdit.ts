import { keyOf, WHOLE } from '../../src/music/index.ts'
import { lastFret, pitchAt, placesOf } from '../../src/instrument/index.ts'
import {
  MARKS,
  EXPRESSION_PARTS,
  EXPRESSIONS,
  type ArrangementDoc,
  type Pos,
  type Score,
  type TabNote,
} from '../../src/document/index.ts'
import {
  FORM_SIGNS,
  MEASURE_EDITS,
  MELODY_EDITS,
  TAB_EDITS,
  clipOf,
  type EditCommand,
} from '../../src/edit/index.ts'

export const ALL_EDITS = [...MELODY_EDITS, ...MEASURE_EDITS, ...TAB_EDITS] as const
export type EditKind = (typeof ALL_EDITS)[number]

/** A random number generator with a seed (mulberry32), so that a failure can be played again. */
export class Dice {
  constructor(private seed: number) {}
  next(): number {
    let t = (this.seed += 0x6d2b79f5)
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
  below(n: number): number {
    return Math.floor(this.next() * n)
  }
  of<T>(list: readonly T[]): T {
    return list[this.below(list.length)]!
  }
}

const VALUES = [WHOLE / 2, WHOLE / 4, WHOLE / 8, WHOLE / 16, (WHOLE * 3) / 8]

/** An edit of one kind that a teacher might make of this score: mostly possible, sometimes not. */
export function randomEdit(
  kind: EditKind,
  score: Score & { arrangement: ArrangementDoc },
  dice: Dice,
): EditCommand {
  const { tune, arrangement } = score
  const { setup, base } = arrangement
  const count = tune.measures.length
  const events = tune.events.filter((e) => e.voice === 0)
  const sung = events.filter((e) => e.pitch)
  const event = () => dice.of(sung.length > 0 && dice.next() < 0.9 ? sung : events)
  const note = (wanted: (n: TabNote) => boolean = () => true): TabNote =>
    dice.of([base.notes.filter(wanted), base.notes].find((l) => l.length > 0) ?? [{ id: 'none' } as TabNote])
  const pitch = () => ({
    step: dice.of(['C', 'D', 'E', 'F', 'G', 'A', 'B'] as const),
    alter: 0,
    octave: dice.of([4, 4, 5]),
  })
  const measure = () => dice.below(count)
  const range = () => {
    const from = measure()
    return { from, to: Math.min(count - 1, from + dice.below(3)) }
  }
  const start = (): Pos => ({ measure: dice.of(tune.measures).id, tick: 0 })
  switch (kind) {
    case 'note':
      return { do: kind, at: event().pos, ticks: dice.of(VALUES), pitch: pitch() }
    case 'rest':
    case 'value':
      return { do: kind, at: event().pos, ticks: dice.of(VALUES) }
    case 'pitch':
      return { do: kind, at: event().pos, pitch: pitch() }
    case 'tie': {
      const like = sung.filter((e, i) => {
        const next = events[events.indexOf(sung[i]!) + 1]?.pitch
        return (
          e.tieTo !== undefined ||
          (next &&
            next.step === e.pitch!.step &&
            next.octave === e.pitch!.octave &&
            next.alter === e.pitch!.alter)
        )
      })
      return { do: kind, at: like.length > 0 ? dice.of(like).pos : event().pos }
    }
    case 'rhythm':
      return { do: kind, at: event().pos, lengths: [WHOLE / 8, dice.of([WHOLE / 8, WHOLE / 4]), WHOLE / 8] }
    case 'triplet':
      return { do: kind, at: event().pos }
    case 'chord':
      return { do: kind, at: event().pos, symbol: dice.of(['C', 'Am7', 'G/B', 'F#dim', '', 'D7']) }
    case 'word':
      return { do: kind, at: event().pos, text: dice.of(['la', 'river', '']) }
    case 'insert':
      return { do: kind, before: dice.below(count + 1), count: 1 + dice.below(2) }
    case 'delete': {
      // What grew long is cut to half of it.
      const from = count > 28 ? 1 : measure()
      return { do: kind, from, to: count > 28 ? count >> 1 : Math.min(count - 1, from + dice.below(2)) }
    }
    case 'paste': {
      const { from, to } = range()
      return { do: kind, before: dice.below(count + 1), clip: clipOf(score, from, to) }
    }
    case 'figure':
      return { do: kind, ...range(), chords: dice.of(['G', 'Am | D7 G', 'F#m', 'Bb C', 'H', '']) }
    case 'move': {
      const { from, to } = range()
      const before = dice.of(
        Array.from({ length: count + 1 }, (_, i) => i)
          .filter((i) => i < from || i > to + 1)
          .concat(from === 0 && to === count - 1 ? [0] : []),
      )
      return { do: kind, from, to, before: before ?? 0 }
    }
    case 'metre':
      return { do: kind, from: measure(), num: dice.of([2, 3, 4, 6]), den: dice.of([4, 4, 8]) }
    case 'key':
      return {
        do: kind,
        from: measure(),
        key: keyOf(
          { step: dice.of(['C', 'D', 'G', 'A', 'E'] as const), alter: 0 },
          dice.of(['major', 'minor', 'dorian'] as const),
        ),
      }
    case 'tempo':
      return { do: kind, at: start(), bpm: dice.of([60, 96, 132, undefined]) }
    case 'pickup':
      return { do: kind, ticks: dice.of([0, 0, 0, WHOLE / 8]) }
    case 'cut':
      return {
        do: kind,
        measure: Math.min(count - 1, 1 + dice.below(count)),
        ticks: dice.of([0, 0, 0, WHOLE / 2]),
      }
    case 'section':
      return { do: kind, measure: measure(), name: dice.of(['Verse', 'Chorus', 'A', '']) }
    case 'repeat':
      return { do: kind, ...range(), on: dice.next() < 0.5 }
    case 'ending':
      return { do: kind, ...range(), passes: dice.of([[1], [2], [1, 2], []]) }
    case 'sign':
      return { do: kind, measure: measure(), sign: dice.of(FORM_SIGNS), on: dice.next() < 0.5 }
    case 'jump':
      return {
        do: kind,
        measure: measure(),
        jump: dice.of(['daCapo', 'daCapoAlFine', 'dalSegno', undefined] as const),
      }
    case 'provenance':
      return { do: kind, ...range(), provenance: dice.of(['heard', 'guessed', 'choice', 'source'] as const) }
    case 'writeOut':
      return { do: kind }
    case 'fret': {
      const near = dice.next() < 0.6 ? note() : undefined
      const string = 1 + dice.below(setup.instrument.strings)
      return {
        do: kind,
        at: near?.pos ?? event().pos,
        string,
        fret: dice.next() < 0.05 ? lastFret(setup, string) + 3 : dice.below(8),
        ticks: dice.of([WHOLE / 4, WHOLE / 8]),
        role: dice.of(['melody', 'bass', 'fill', 'harmony'] as const),
      }
    }
    case 'erase':
      return { do: kind, note: note((n) => n.role !== 'melody' || dice.next() < 0.3).id }
    case 'restring': {
      const n = note()
      const other = n.place
        ? placesOf(setup, pitchAt(setup, n.place)).filter((p) => p.string !== n.place.string)
        : []
      return { do: kind, note: n.id, string: other.length > 0 ? dice.of(other).string : 1 + dice.below(6) }
    }
    case 'length':
      return { do: kind, note: note().id, ticks: dice.of(VALUES) }
    case 'hold':
      return { do: kind, note: note((n) => n.role !== 'melody').id }
    case 'left':
      return { do: kind, note: note((n) => n.place?.fret > 0).id, finger: dice.of([1, 2, 3, 4] as const) }
    case 'right':
      return { do: kind, note: note().id, sign: dice.of(['p', 'i', 'm', 'a', 'none'] as const) }
    case 'mark':
      return { do: kind, note: note().id, mark: dice.of(MARKS), on: dice.next() < 0.7 }
    case 'remark':
      return { do: kind, note: note().id, text: dice.of(['keep finger 3 down', 'soft here', '']) }
    case 'express': {
      const part = dice.of(EXPRESSION_PARTS)
      return {
        do: kind,
        note: note().id,
        part,
        value: dice.of([...EXPRESSIONS[part], undefined]),
      } as EditCommand
    }
    case 'attack': {
      const onString = new Map<number, TabNote>()
      const reached = base.notes.flatMap((n) => {
        const before = onString.get(n.place.string)
        onString.set(n.place.string, n)
        return before && before.pos !== n.pos && before.place.fret !== n.place.fret ? [{ before, n }] : []
      })
      if (reached.length === 0 || dice.next() < 0.2)
        return {
          do: kind,
          note: note().id,
          attack: dice.of(['pluck', 'muted', 'tremolo', 'bottle'] as const),
        }
      const { before, n } = dice.of(reached)
      return { do: kind, note: n.id, attack: n.place.fret > before.place.fret ? 'hammer' : 'pull' }
    }
    case 'bend':
      return {
        do: kind,
        note: note((n) => n.place?.string <= 2 && n.place.fret >= 4).id,
        semitones: dice.of([0, 1, 2]),
      }
    case 'harmonic':
      return {
        do: kind,
        note: note((n) => n.place?.fret > 0 && n.place.fret < 8).id,
        kind: dice.of(['artificial', 'artificial', 'none', 'none', 'natural'] as const),
      }
    case 'offset': {
      const under = base.notes.filter((n) => n.attack === 'bottle')
      // Now and then the bottleneck is laid on one more note first.
      if (under.length === 0 || dice.next() < 0.2)
        return { do: 'attack', note: note((n) => n.place?.fret > 0).id, attack: 'bottle' }
      return { do: kind, note: dice.of(under).id, cents: dice.of([-14, 0, 12]) }
    }
    case 'grace': {
      const n = note((m) => m.place?.fret > 1 && m.place.harmonic === undefined)
      return {
        do: kind,
        note: n.id,
        fret: dice.of([(n.place?.fret ?? 2) - 1, (n.place?.fret ?? 2) + 2, undefined]),
      }
    }
    case 'finger':
      return { do: kind, ...range() }
  }
}
