import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { plainPitch, pitchText, WHOLE } from '../../src/music/index.ts'
import { guitarSetup, pitchAt, setupOf } from '../../src/instrument/index.ts'
import type { Score } from '../../src/document/index.ts'
import { applyEdit, readPlacesRow, rowEdits } from '../../src/edit/index.ts'
import { arrangedScore } from '../support/score.ts'
import { tuneOf } from '../support/tunes.ts'
import { scoreFaults } from './scoreFaults.ts'

const setup = guitarSetup()

describe('places in a row', () => {
  it('reads the string once, then its frets; silence, places together, another string', () => {
    const { steps, faults } = readPlacesRow('4: 0 2 - 3:0 6.3+2.1', setup)
    expect(faults).toEqual([])
    expect(steps.map((s) => s.places.map((p) => `${p.string}.${p.fret}`).join('+'))).toEqual([
      '4.0',
      '4.2',
      '',
      '3.0',
      '6.3+2.1',
    ])
  })

  it('checks a claimed note against its place, and says what stands there', () => {
    expect(readPlacesRow('5: 3=C 4: 2=E 2: 1=c', setup).faults).toEqual([])
    const { faults, steps } = readPlacesRow('4: 2=F', setup)
    expect(faults).toEqual([{ kind: 'otherNote', at: 3, text: '2=F', string: 4, fret: 2 }])
    expect(steps).toHaveLength(1)
  })

  it('checks a claimed chord against the places struck together, by name', () => {
    // C: E, C and G; A minor over its open string; a single place against a chord.
    expect(readPlacesRow('5.3+4.2+1.0=C 5.0+2.1=Am 3:0=G7', setup).faults).toEqual([])
    expect(readPlacesRow('5.3+4.2+1.1=C', setup).faults).toEqual([
      { kind: 'otherChord', at: 0, text: '1.1=C', string: 1, fret: 1 },
    ])
    // A note name of one place alone is a note.
    expect(readPlacesRow('5: 2=C', setup).faults[0]).toMatchObject({ kind: 'otherNote' })
  })

  it('names every misfit of a row, each at its place', () => {
    const { faults, steps } = readPlacesRow('4: 2=F 40 k 3', setup)
    expect(faults.map((f) => [f.kind, f.at])).toEqual(
      [
        ['notFret', 10],
        ['beyondNeck', 7],
        ['otherNote', 3],
      ].reverse(),
    )
    expect(steps).toHaveLength(2)
  })

  it.each([
    ['0 2', 'noString', 0],
    ['9: 2', 'noString', 0],
    ['4: 2 k', 'notFret', 5],
    ['4: 29', 'beyondNeck', 3],
    ['4: 2=H', 'noNote', 3],
  ] as const)('%s: %s', (text, kind, at) => {
    expect(readPlacesRow(text, setup).faults[0]).toMatchObject({ kind, at })
  })

  it('reads any row that is printed from places, with every true claim', () => {
    const place = fc.record({ string: fc.integer({ min: 1, max: 6 }), fret: fc.integer({ min: 0, max: 15 }) })
    fc.assert(
      fc.property(
        fc.array(fc.uniqueArray(place, { minLength: 1, maxLength: 3, selector: (p) => p.string }), {
          minLength: 1,
          maxLength: 8,
        }),
        (row) => {
          const text = row
            .map((places) =>
              places
                .map((p) => `${p.string}.${p.fret}=${pitchText(plainPitch(pitchAt(setup, p), false))}`)
                .join('+'),
            )
            .join(' ')
          const { steps, faults } = readPlacesRow(text, setup)
          expect(faults).toEqual([])
          expect(steps.map((s) => s.places)).toEqual(row)
        },
      ),
    )
  })

  it('is written into empty measures, over the bar line, and is a whole score', () => {
    const tune = tuneOf('X:1\nT:Bare\nM:4/4\nL:1/8\nK:C\nz8|z8|]')
    let score: Score = arrangedScore(tune, 'melody-bass', 2, setup)
    const good = readPlacesRow('2: 1 3 1: 0 1 6.3+1.3', setup)
    const made = rowEdits(good, tune, setup, { measure: tune.measures[0]!.id, tick: 0 }, WHOLE / 4)!
    for (const edit of made.edits) {
      const edited = applyEdit(score, edit)
      if (!edited.ok) throw new Error(edited.refusal.reason)
      score = edited.score
    }
    expect(scoreFaults(score)).toEqual([])
    expect(score.tune.abc!.text).toContain('C2 D2 E2 F2 | G2 z6')
    expect(made.end).toEqual({ measure: tune.measures[1]!.id, tick: WHOLE / 4 })
    expect(score.arrangement!.base.notes.filter((n) => n.role === 'bass').map((n) => n.place)).toEqual([
      { string: 6, fret: 3 },
    ])
  })

  it('ends where the tune does', () => {
    const tune = tuneOf('X:1\nT:Bare\nM:2/4\nL:1/8\nK:C\nz4|]')
    const row = readPlacesRow('1: 0 1 3', setupOf('mandolin'))
    expect(
      rowEdits(row, tune, setupOf('mandolin'), { measure: tune.measures[0]!.id, tick: 0 }, WHOLE / 4),
    ).toBeUndefined()
  })

  it('carries lengths, bar lines, joins, signs and the fingers of both hands', () => {
    const { steps, faults } = readPlacesRow('e 5: 2h4p2 0 | q. 1: 7(1p) /9 x <12> 3b 5b7~? 2(d) 5:/7', setup)
    expect(faults).toEqual([])
    const found = steps.map(({ places, ticks, bar }) => {
      const { string, fret, played = [] } = places[0]!
      const how = played.map((p) =>
        Object.values(p)
          .filter((v) => v !== true)
          .join('='),
      )
      return `${bar ? '| ' : ''}${string}.${fret} ${(ticks ?? 0) / 2520} ${how.join(' ')}`.trim()
    })
    expect(found).toEqual([
      '5.2 2',
      '5.4 2 attack=hammer',
      '5.2 2 attack=pull',
      '5.0 2',
      '| 1.7 6 left=1 right=p',
      '1.9 6 attack=slide',
      '1.0 6 attack=muted',
      '1.12 6 harmonic=natural',
      '1.5 6 bend=2',
      '1.7 6 bend=2 mark=vibrato mark=optional',
      '1.2 6 right=down',
      // Nothing before it on that string: slid into from nowhere.
      '5.7 6 mark=slideFromBelow',
    ])
  })

  it('carries the bottleneck: on the fret, beside it, and along the string', () => {
    const { steps, faults } = readPlacesRow('q 2: 5(B)/7 9{-20}~ 3{+5}?(Bi) 5', setup)
    expect(faults).toEqual([])
    expect(steps.map(({ places: [p] }) => [p!.fret, ...(p!.played ?? [])])).toEqual([
      [5, { do: 'attack', attack: 'bottle' }],
      [7, { do: 'attack', attack: 'slide' }],
      [
        9,
        { do: 'attack', attack: 'bottle' },
        { do: 'offset', cents: -20 },
        { do: 'mark', mark: 'vibrato', on: true },
      ],
      [
        3,
        { do: 'attack', attack: 'bottle' },
        { do: 'offset', cents: 5 },
        { do: 'mark', mark: 'optional', on: true },
        { do: 'right', sign: 'i' },
      ],
      [5],
    ])
  })

  it('says what joins to nothing, and two frets on one string', () => {
    expect(readPlacesRow('4: h2', setup).faults).toMatchObject([{ kind: 'notJoined', string: 4 }])
    expect(readPlacesRow('4: 2 5: p0', setup).faults).toMatchObject([{ kind: 'notJoined', string: 5 }])
    expect(readPlacesRow('4: 0b 3b2', setup).faults.map((f) => f.kind)).toEqual(['noBend', 'noBend'])
    expect(readPlacesRow('4.2+4.3', setup).faults).toMatchObject([{ kind: 'twice' }])
  })

  it('is written as it says, in one step, and refused as a whole where a hand cannot do it', () => {
    const score = arrangedScore(tuneOf('X:1\nT:t\nM:4/4\nL:1/4\nK:C\nz4|z4|]\n'), 'melody-bass', 1)
    const from = { measure: score.tune.measures[0]!.id, tick: 0 }
    const write = (text: string) => {
      const made = rowEdits(readPlacesRow(text, setup), score.tune, setup, from, WHOLE / 4)!
      let now: Score = score
      for (const edit of made.edits) {
        const edited = applyEdit(now, edit)
        if (!edited.ok) return edited.refusal.reason
        now = edited.score
      }
      return now.arrangement!.base.notes
    }
    const notes = write('e 4: 2h4p2 0 q 3: 2(1m) 5:3 | h 2: 5b 3~')
    if (typeof notes === 'string') throw new Error(notes)
    const found = [...notes]
      .sort((a, b) => a.pos.measure.localeCompare(b.pos.measure) || a.pos.tick - b.pos.tick)
      .map(
        (n) =>
          `${n.pos.measure}@${n.pos.tick} ${n.place.string}.${n.place.fret} ${n.attack}${n.bend ? ` ^${n.bend}` : ''}${n.vibrato ? ' ~' : ''}`,
      )
    expect(found).toEqual([
      'm1@0 4.2 pluck',
      'm1@5040 4.4 hammer',
      'm1@10080 4.2 pull',
      'm1@15120 4.0 pluck',
      'm1@20160 3.2 pluck',
      'm1@30240 5.3 pluck',
      'm2@0 2.5 pluck ^2',
      'm2@20160 2.3 pluck ~',
    ])
    const held = notes.find((n) => n.place.string === 3)!
    expect([held.left, held.right]).toEqual([1, 'm'])
    expect(notes.every((n) => n.pos.tick >= 0)).toBe(true)
    const under = write('q 2: 5(B)/7 9{-20} 3')
    if (typeof under === 'string') throw new Error(under)
    const [five, seven, nine, three] = [5, 7, 9, 3].map((fret) =>
      under.find((n) => n.place.string === 2 && n.place.fret === fret),
    )
    expect([five!.attack, seven!.attack, nine!.attack, three!.attack]).toEqual([
      'bottle',
      'slide',
      'bottle',
      'pluck',
    ])
    expect(nine!.place.offsetCents).toBe(-20)
    // No harmonic rings there: nothing of the row stays.
    expect(typeof write('q 4: 2 <1>')).toBe('string')
  })
})
