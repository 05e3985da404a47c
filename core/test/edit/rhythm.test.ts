import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { QUARTER, WHOLE } from '../../src/music/index.ts'
import { melodyOf, ticksAt, timelineOf, type Score, type TuneDoc } from '../../src/document/index.ts'
import { applyEdit, quantised } from '../../src/edit/index.ts'
import { readAbc } from '../../src/input/abc/readAbc.ts'
import { writeAbc } from '../../src/output/abc/writeAbc.ts'
import { arrangedScore } from '../support/score.ts'
import { tuneOf } from '../support/tunes.ts'

const tune = tuneOf(
  'X:1\nT:Sill\nM:3/4\nL:1/4\nQ:1/4=90\nK:G\n"G"GAB|"C"c2-c|"D"dcB|"G"G3|"Em"E F G|"G"G3|]\n',
)

const notesOf = (t: TuneDoc) => melodyOf(t, timelineOf(t.measures))
const VALUES = [WHOLE / 16, WHOLE / 8, (WHOLE * 3) / 16, WHOLE / 4, (WHOLE * 5) / 16, WHOLE / 2]

describe('another rhythm for the notes of the melody', () => {
  it('gives each its length, in order, and leaves pitches, ids and all else as they were', () => {
    const before = notesOf(tune)
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: before.length - 1 }),
        fc.array(fc.constantFrom(...VALUES), { minLength: 1, maxLength: 6 }),
        (first, lengths) => {
          const start = before[first]!.start
          const at = tune.events.find((e) => e.id === before[first]!.sourceId)!.pos
          const edited = applyEdit({ tune }, { do: 'rhythm', at, lengths })
          const own = lengths.slice(0, before.length - first)
          const total = own.reduce((a, b) => a + b, 0)
          const limit = before[first + own.length]?.start ?? timelineOf(tune.measures).length
          expect(edited.ok).toBe(start + total <= limit)
          if (!edited.ok) {
            expect(edited.refusal.reason).toBe('rhythmLong')
            if (edited.refusal.offer) expect(applyEdit({ tune }, edited.refusal.offer).ok).toBe(true)
            return
          }
          const after = notesOf(edited.score.tune)
          expect(after.map((n) => [n.sourceId, n.pitch])).toEqual(before.map((n) => [n.sourceId, n.pitch]))
          let now = start
          after.forEach((n, i) => {
            const asked = i >= first && i < first + own.length ? own[i - first] : undefined
            if (asked === undefined)
              expect([n.start, n.duration]).toEqual([before[i]!.start, before[i]!.duration])
            else {
              expect([n.start, n.duration]).toEqual([now, asked])
              now += asked
            }
          })
          for (const m of edited.score.tune.measures)
            expect(
              edited.score.tune.events
                .filter((e) => e.pos.measure === m.id)
                .reduce((sum, e) => sum + e.dur.ticks, 0),
            ).toBe(m.length)
        },
      ),
    )
  })

  it('takes along what the tab strikes with the note', () => {
    const score = arrangedScore(tune, 'melody-bass', 2)
    const at = { measure: tune.measures[4]!.id, tick: 0 }
    const lengths = [WHOLE / 2, WHOLE / 8, WHOLE / 8]
    const edited = applyEdit(score, { do: 'rhythm', at, lengths })
    if (!edited.ok) throw new Error(edited.refusal.reason)
    const { tune: next, arrangement } = edited.score as Required<Score>
    const timeline = timelineOf(next.measures)
    const melody = notesOf(next)
    for (const n of arrangement.base.notes) {
      const now = ticksAt(timeline, n.pos)
      const own = score.arrangement.base.notes.find((o) => o.id === n.id)!
      const source = melody.find((m) => m.sourceId === n.sourceId)
      if (n.role === 'melody') expect([now, n.dur.ticks]).toEqual([source!.start, source!.duration])
      expect(n.place).toEqual(own.place)
    }
  })

  it('writes beats of three as triplets, whole beats plainly, and fills the last one up with rests', () => {
    const third = QUARTER / 3
    const long = tuneOf('X:1\nT:Sill\nM:4/4\nL:1/4\nQ:1/4=90\nK:G\nGABc|dcBA|G4|z4|z4|z4|z4|z4|]\n')
    const before = notesOf(long)
    const at = { measure: long.measures[0]!.id, tick: 0 }
    /** Beats cut in three, in two or not at all; a note may go on over cuts. */
    const beats = fc.array(
      fc.constantFrom([0], [0, third], [0, 2 * third], [0, third, 2 * third], [0, QUARTER / 2], []),
      {
        minLength: 2,
        maxLength: 8,
      },
    )
    fc.assert(
      fc.property(beats, (cut) => {
        const onsets = [...new Set([0, ...cut.flatMap((b, i) => b.map((o) => o + i * QUARTER))])].sort(
          (a, b) => a - b,
        )
        const lengths = onsets.slice(1).map((o, i) => o - onsets[i]!)
        if (lengths.length === 0 || lengths.length > before.length) return
        const edited = applyEdit({ tune: long }, { do: 'rhythm', at, lengths })
        const end = lengths.reduce((a, b) => a + b, 0)
        const limit = before[lengths.length]?.start
        if (!edited.ok) {
          // Refused for want of room, or for a beat that its last note leaves to the next note of the tune.
          expect(limit).toBeDefined()
          expect(limit! < end || limit! < Math.ceil(end / QUARTER) * QUARTER).toBe(true)
          return
        }
        const { tune: next } = edited.score
        const after = notesOf(next)
        lengths.forEach((l, i) => expect([after[i]!.start, after[i]!.duration]).toEqual([onsets[i], l]))
        for (const m of next.measures)
          expect(next.events.filter((e) => e.pos.measure === m.id).reduce((s, e) => s + e.dur.ticks, 0)).toBe(
            m.length,
          )
        for (const t of next.tuplets) {
          const group = next.events.filter((e) => e.dur.tupletId === t.id)
          expect(group.reduce((s, e) => s + e.dur.ticks, 0)).toBe(QUARTER)
          for (const e of group) expect([third, 2 * third]).toContain(e.dur.ticks)
        }
        // What is outside triplets has a plain value.
        for (const e of next.events) if (!e.dur.tupletId) expect(e.dur.ticks % (WHOLE / 64)).toBe(0)
        // It reads back from its ABC with the same notes.
        const read = readAbc(writeAbc(next), () => 'again')[0]!.tune!
        expect(notesOf(read).map((n) => [n.start, n.duration])).toEqual(
          after.map((n) => [n.start, n.duration]),
        )
      }),
    )
  })

  it('does not part a beat in three and in two at once', () => {
    const at = { measure: tune.measures[0]!.id, tick: 0 }
    const lengths = [QUARTER / 3, QUARTER / 6, QUARTER / 2]
    expect(applyEdit({ tune }, { do: 'rhythm', at, lengths })).toMatchObject({
      refusal: { reason: 'tuplet' },
    })
  })

  it('has nothing to say where no note begins, or to less than a 64th', () => {
    const at = { measure: tune.measures[1]!.id, tick: 7 }
    const first = { ...at, tick: 0 }
    expect(applyEdit({ tune }, { do: 'rhythm', at, lengths: [QUARTER] })).toMatchObject({
      refusal: { reason: 'nothingThere' },
    })
    expect(applyEdit({ tune }, { do: 'rhythm', at: first, lengths: [10] })).toMatchObject({
      refusal: { reason: 'tooShort' },
    })
  })
})

describe('taps', () => {
  it('are read as they were meant, however the hand wavers within the grid', () => {
    const bpm = fc.integer({ min: 40, max: 200 })
    const meant = fc.array(fc.integer({ min: 1, max: 8 }), { minLength: 1, maxLength: 30 })
    fc.assert(
      fc.property(
        bpm,
        meant,
        fc.array(fc.double({ min: -0.22, max: 0.22, noNaN: true })),
        (tempo, steps, waver) => {
          const grid = QUARTER / 2
          const step = 60 / tempo / 2
          let at = 0
          const taps = [0, ...steps.map((s) => (at += s))].map((t, i) => 3 + (t + (waver[i] ?? 0)) * step)
          const { lengths, offBy } = quantised(taps, tempo, { grid })
          expect(lengths).toEqual(steps.map((s) => s * grid))
          for (const off of offBy) expect(Math.abs(off)).toBeLessThan(step / 2)
        },
      ),
    )
  })

  it('are heard in three to a beat where they were meant so, also from within a beat', () => {
    const beats = fc.array(fc.constantFrom('whole', 'two', 'three'), { minLength: 2, maxLength: 12 })
    const offsets = { whole: [0], two: [0, 1 / 2], three: [0, 1 / 3, 2 / 3] }
    const waver = fc.array(fc.double({ min: -0.03, max: 0.03, noNaN: true }), {
      minLength: 40,
      maxLength: 40,
    })
    fc.assert(
      fc.property(fc.integer({ min: 50, max: 160 }), beats, waver, (bpm, kinds, off) => {
        const places = kinds.flatMap((k, i) => offsets[k].map((o) => i + o))
        const taps = [...places, kinds.length].map((p, i) => ((p + (off[i] ?? 0)) * 60) / bpm)
        const { lengths } = quantised(taps, bpm, { grid: QUARTER / 2, thirds: true })
        const meant = [...places, kinds.length].map((p) => Math.round(p * QUARTER))
        expect(lengths).toEqual(meant.slice(1).map((p, i) => p - meant[i]!))
      }),
    )
    // From the third third of a beat on: a beat of three follows.
    const from = (2 * QUARTER) / 3
    const { lengths } = quantised([0, 0.34, 0.67, 1], 60, { grid: QUARTER / 2, thirds: true, from })
    expect(lengths).toEqual([QUARTER / 3, QUARTER / 3, QUARTER / 3])
  })

  it('never fall together', () => {
    expect(quantised([0, 0.01, 0.02], 60, { grid: QUARTER / 4 }).lengths).toEqual([QUARTER / 4, QUARTER / 4])
    expect(quantised([], 60, { grid: QUARTER }).lengths).toEqual([])
  })
})
