import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { midiOf } from '../../../src/music/index.ts'
import { guitarSetup, pitchAt, setupOf, type LeftFinger, type Setup } from '../../../src/instrument/index.ts'
import {
  isArrival,
  ORNAMENTS,
  lockOf,
  type Lock,
  type LockField,
  type LockValues,
  type Ornament,
  type Style,
  type TuneDoc,
} from '../../../src/document/index.ts'
import { arrangementOf, arranging } from '../../../src/arrange/index.ts'
import { audit } from '../../../src/audit/index.ts'
import { finishedTabOf, tabJson } from '../../../src/output/index.ts'
import { finish } from '../../../src/turns.ts'
import { readArrangementDoc } from '../../../src/schema/index.ts'
import { ornamented } from '../../support/ornamented.ts'
import { CORPUS, tuneOfMusic } from '../../support/tunes.ts'

describe('density', () => {
  const counts = (tune: TuneDoc, style: Style) =>
    ORNAMENTS.map(
      (o) => ornamented(tune, style, 3, o).layer.notes.filter((n) => isArrival(n.attack) || n.graces).length,
    )

  it('0 plucks every note, and each density ornaments no fewer than the one before', () => {
    for (const tune of CORPUS.slice(0, 6)) {
      const all = counts(tune, 'flatpicked-lead')
      expect(all[0]).toBe(0)
      expect(all).toEqual([...all].sort((a, b) => a - b))
    }
  })

  it('changes no pitch, place or finger of the melody: only how it is sounded; a bend alone moves its stop', () => {
    for (const tune of CORPUS.slice(0, 4)) {
      const plain = ornamented(tune, 'melody-bass', 3, 0).layer
      const full = ornamented(tune, 'melody-bass', 3, 3).layer
      const bent = new Set(full.notes.filter((n) => n.bend).map((n) => n.id))
      const same = (l: typeof plain) =>
        l.notes.map((n) => [n.id, bent.has(n.id) ? '' : [n.place, n.left], n.dur, n.role])
      expect(same(full)).toEqual(same(plain))
      const heard = (l: typeof plain) => l.notes.map((n) => pitchAt(guitarSetup(), n.place) + (n.bend ?? 0))
      expect(heard(full)).toEqual(heard(plain))
    }
  })

  it('hammers and pulls two strings together where each has fingers of its own', () => {
    let together = 0
    for (const tune of CORPUS) {
      const { layer, report } = ornamented(tune, 'double-stops', 3, 3)
      expect(report.structural, tune.title).toBe(0)
      const arrivals = layer.notes.filter((n) => isArrival(n.attack) && !n.graces)
      for (const n of arrivals.filter((x) => x.role === 'melody')) {
        const beside = arrivals.filter(
          (x) => x !== n && x.pos.measure === n.pos.measure && x.pos.tick === n.pos.tick,
        )
        for (const x of beside) {
          expect(x.attack).toBe(n.attack)
          expect(x.place.string).not.toBe(n.place.string)
          expect(x.right).toBe('none')
          if (x.left !== 0) expect(x.left).not.toBe(n.left)
          together++
        }
      }
    }
    expect(together).toBeGreaterThan(0)
  })

  it('marks what the source has not as what may be left out, and only that', () => {
    let [own, added] = [0, 0]
    for (const tune of CORPUS) {
      const graced = new Set(
        tune.events.filter((e) => e.graces.length > 0 || e.ornaments.length > 0).map((e) => e.id),
      )
      for (const n of ornamented(tune, 'melody-bass', 3, 3).layer.notes)
        for (const g of n.graces ?? []) {
          const fromSource = graced.has(n.sourceId!)
          expect(g.optional ?? false).toBe(!fromSource)
          if (fromSource) own++
          else added++
        }
    }
    expect(added).toBeGreaterThan(10)
    expect(own).toBeGreaterThanOrEqual(0)
  })

  it('without slides reaches each note by a hammer-on or pull-off of another finger, or plucks it', () => {
    let [before, instead] = [0, 0]
    // A hand of two fingers must slide where others would hammer.
    const usual = guitarSetup()
    const { player } = usual
    const setup = { ...usual, player: { ...player, techniques: { ...player.techniques, fingers: 2 } } }
    for (const tune of CORPUS.slice(0, 10)) {
      const slid = ornamented(tune, 'flatpicked-lead', 2, 3, { setup })
      const regions = slid.regions.map((r) => ({ ...r, without: ['slides' as const] }))
      const arranged = finish(arranging(tune, setup, regions))
      const report = audit(finishedTabOf(tabJson(tune, setup, arranged.plan, arranged.layer, [], 0)))
      expect(report.structural, tune.title).toBe(0)
      expect(report.findings.filter((f) => f.kind === 'hop').length).toBe(
        slid.report.findings.filter((f) => f.kind === 'hop').length,
      )
      expect(arranged.layer.notes.filter((n) => n.attack === 'slide')).toEqual([])
      const were = slid.layer.notes.filter((n) => n.attack === 'slide')
      before += were.length
      const now = new Map(arranged.layer.notes.map((n) => [n.id, n]))
      for (const n of were) {
        expect(now.get(n.id)!.place).toEqual(n.place)
        if (isArrival(now.get(n.id)!.attack)) instead++
      }
    }
    expect(before).toBeGreaterThan(5)
    expect(instead).toBeGreaterThan(before / 3)
  })
})

describe('ornaments of the source', () => {
  const head = 'M:4/4\nL:1/4\nQ:1/4=80\nK:D'

  it('slurs lie on one string where the hand has it, and the second note takes no stroke', () => {
    const { layer } = ornamented(tuneOfMusic('"D"(de) f2|]', head), 'flatpicked-lead', 2, 1)
    const [d, e] = layer.notes
    expect(e!.attack).toBe('hammer')
    expect(e!.right).toBe('none')
    expect(e!.place.string).toBe(d!.place.string)
    expect(layer.spans).toEqual([{ id: `s.${e!.id}`, kind: 'hammer', from: d!.id, to: e!.id }])
  })

  it('grace notes and signs become short notes on the same string, the neighbours from the key', () => {
    const pitches = (music: string) => {
      const tune = tuneOfMusic(music, head)
      const { layer, plan } = ornamented(tune, 'flatpicked-lead', 2, 1)
      const note = layer.notes.find((n) => n.graces)!
      expect(note, music).toBeDefined()
      expect(note.graces!.every((g) => g.place.string === note.place.string)).toBe(true)
      const main = midiOf(tune.events[0]!.pitch!) + plan.transposed
      expect(pitchAt(guitarSetup(), note.place)).toBe(main)
      return note.graces!.map((g) => pitchAt(guitarSetup(), g.place) - main)
    }
    expect(pitches('{e}d2 f2|]')).toEqual([2])
    expect(pitches('~f2 e2|]')).toEqual([0, 1, 0, -2])
    expect(pitches('Pe2 f2|]')).toEqual([0, 2])
    expect(pitches('Me2 f2|]')).toEqual([0, -2])
    expect(pitches('Te2 f2|]')).toEqual([0, 2, 0, 2])
  })

  it('a pull-off ends an ornament that comes from above, a hammer-on one from below', () => {
    const attack = (music: string) =>
      ornamented(tuneOfMusic(music, head), 'flatpicked-lead', 2, 1).layer.notes[0]!.attack
    expect(attack('{f}e2 f2|]')).toBe('pull')
    expect(attack('{d}e2 f2|]')).toBe('hammer')
  })

  it('what is not played is said with its reason', () => {
    const fast = tuneOfMusic('~d/4e/4f/4g/4 a3|]', 'M:4/4\nL:1/4\nQ:1/4=200\nK:D')
    expect(ornamented(fast, 'flatpicked-lead', 2, 1).ornamentsLeft).toMatchObject([
      { measure: 0, tick: 0, reason: 'tooFast' },
    ])
    const graced = tuneOfMusic('{e}d2 f2|]', head)
    expect(ornamented(graced, 'flatpicked-lead', 2, 0).ornamentsLeft).toMatchObject([{ reason: 'none' }])
    const far = tuneOfMusic("{g'}d2 f2|]", head)
    expect(ornamented(far, 'melody-bass', 1, 1).ornamentsLeft).toMatchObject([{ reason: 'noRoom' }])
  })

  it('an ornament of a note that is bent is said to be left out', () => {
    const { ornamentsLeft } = ornamented(tuneOfMusic('"D"f/ g {g}g A|]', head), 'melody-bass', 3, 3)
    expect(ornamentsLeft).toMatchObject([{ reason: 'noRoom' }])
  })

  it('every ornament of the source is played or said to be left out', () => {
    const sign = fc.constantFrom('', '~', 'T', 'P', 'M', '{g}', '{cd}', '{ef}')
    const note = fc.tuple(
      sign,
      fc.constantFrom('A', 'B', 'c', 'd', 'e', 'f', 'g', 'a'),
      fc.constantFrom('', '2', '/'),
    )
    fc.assert(
      fc.property(
        fc.array(note, { minLength: 4, maxLength: 10 }),
        fc.constantFrom<Style>('melody-bass', 'flatpicked-lead', 'alternating-bass'),
        fc.constantFrom<Ornament>(0, 1, 2, 3),
        (notes, style, ornament) => {
          const tune = tuneOfMusic(`"D"${notes.map((n) => n.join('')).join(' ')}|]`, head)
          const { layer, ornamentsLeft, report } = ornamented(tune, style, 3, ornament)
          const asked = tune.events.filter((e) => e.graces.length + e.ornaments.length > 0)
          const graced = new Set(layer.notes.filter((n) => n.graces).map((n) => n.sourceId))
          const played = asked.filter((e) => graced.has(e.id)).length
          expect(played + ornamentsLeft.length).toBe(asked.length)
          expect(report.structural).toBe(0)
        },
      ),
      { numRuns: 60 },
    )
  })
})

describe('strokes', () => {
  it('in strict turn pass over what the fretting hand sounds alone', () => {
    const tune = CORPUS.find((t) => ornamented(t, 'flatpicked-lead', 2, 2).layer.spans.length > 3)!
    const { layer } = ornamented(tune, 'flatpicked-lead', 2, 2, {
      school: { strokes: 'alternate', picking: 'flatPick' },
    })
    const all = layer.notes.filter((n) => n.right !== 'none')
    expect(layer.notes.length).toBeGreaterThan(all.length)
    // The last chord is one stroke.
    const struck = all.filter((n) => n.role === 'melody')
    struck.slice(1).forEach((n, i) => expect(n.right).not.toBe(struck[i]!.right))
  })
})

describe('a swap', () => {
  const tune = tuneOfMusic('"D"d e f d|]', 'M:4/4\nL:1/4\nQ:1/4=80\nK:D')
  const plain = ornamented(tune, 'flatpicked-lead', 2, 1)
  const [d, f] = plain.layer.notes as [(typeof plain.layer.notes)[number], (typeof plain.layer.notes)[number]]
  const lock = <F extends LockField>(target: string, field: F, value: LockValues[F]): Lock =>
    lockOf(field, `${target}${field}`, target, value)

  it('to a slide, a hammer-on or a pluck is kept, with the fingers that it needs', () => {
    const fret = pitchAt(guitarSetup(), f.place) - pitchAt(guitarSetup(), { ...d.place, fret: 0 })
    const place = { string: d.place.string, fret }
    const slid = ornamented(tune, 'flatpicked-lead', 2, 1, {
      locks: [
        lock(f.id, 'attack', 'slide'),
        lock(d.id, 'place', d.place),
        lock(f.id, 'place', place),
        lock(d.id, 'left', 2),
        lock(f.id, 'left', 2),
      ],
    })
    expect(slid.layer.notes[1]).toMatchObject({ attack: 'slide', place, left: 2, right: 'none' })
    expect(slid.report.structural).toBe(0)
    const hammered = ornamented(tune, 'flatpicked-lead', 2, 1, {
      locks: [
        lock(f.id, 'attack', 'hammer'),
        lock(d.id, 'place', d.place),
        lock(f.id, 'place', place),
        lock(d.id, 'left', 1),
        lock(f.id, 'left', 3),
      ],
    })
    expect(hammered.layer.notes[1]).toMatchObject({ attack: 'hammer', left: 3 })
    expect(hammered.report.structural).toBe(0)
    const plucked = ornamented(tuneOfMusic('"D"(d e) f d|]', 'M:4/4\nL:1/4\nK:D'), 'flatpicked-lead', 2, 1, {
      locks: [lock(f.id, 'attack', 'pluck')],
    })
    expect(plucked.layer.notes[1]!.attack).toBe('pluck')
  })
})

describe('an ornamented arrangement', () => {
  it('is what storage accepts and gives back', () => {
    const tune = tuneOfMusic('"D"(de) ~f2|{g}a2 Td2|]', 'M:4/4\nL:1/4\nQ:1/4=80\nK:D')
    const setup: Setup = guitarSetup()
    const { layer, plan, regions } = ornamented(tune, 'melody-bass', 3, 3)
    const doc = arrangementOf('a', 'A', tune, setup, regions, { layer, transposed: plan.transposed })
    expect(readArrangementDoc(JSON.parse(JSON.stringify(doc)))).toEqual(doc)
  })
})

describe('a bend', () => {
  const tune = tuneOfMusic('"D"d e d f|]', 'M:4/4\nL:1/4\nQ:1/4=80\nK:D')
  const plain = ornamented(tune, 'flatpicked-lead', 2, 1).layer.notes
  const lock = <F extends LockField>(i: number, field: F, value: LockValues[F]): Lock =>
    lockOf(field, `${i}${field}`, plain[i]!.id, value)
  const asked = (string: number, fret: number, finger: LeftFinger): Lock[] => [
    lock(1, 'attack', 'bend'),
    ...[0, 1, 2].flatMap((i) => [
      lock(i, 'place', { string, fret: i === 1 ? fret + 2 : fret }),
      lock(i, 'left', finger),
    ]),
  ]

  it('stays at its place and is pushed up to its pitch; the next note is let back, without a stroke', () => {
    const { layer, json, report } = ornamented(tune, 'flatpicked-lead', 2, 1, { locks: asked(2, 3, 3) })
    expect(layer.notes.slice(0, 3)).toMatchObject([
      { attack: 'pluck', place: { string: 2, fret: 3 } },
      { attack: 'bend', bend: 2, place: { string: 2, fret: 3 }, left: 3, right: 'none' },
      { attack: 'release', place: { string: 2, fret: 3 }, right: 'none' },
    ])
    expect(json.notes.slice(0, 3).map((n) => n.midi)).toEqual([62, 64, 62])
    expect([report.structural, report.melodyKept]).toEqual([0, 4])
  })

  it('is held while the note is struck again, and let back at last', () => {
    const again = tuneOfMusic('"D"d e e d|]', 'M:4/4\nL:1/4\nQ:1/4=80\nK:D')
    const notes = ornamented(again, 'flatpicked-lead', 1, 1).layer.notes
    const locks = notes.flatMap((n, i): Lock[] => [
      ...(i === 1 ? [lockOf('attack', 'a', n.id, 'bend')] : []),
      { id: `p${i}`, target: n.id, field: 'place', value: { string: 2, fret: i % 3 === 0 ? 3 : 5 } },
      { id: `f${i}`, target: n.id, field: 'left', value: 3 },
    ])
    const { layer, report } = ornamented(again, 'flatpicked-lead', 1, 1, { locks })
    expect(layer.notes.map((n) => [n.attack, n.bend, n.place.fret])).toEqual([
      ['pluck', undefined, 3],
      ['bend', 2, 3],
      ['pluck', 2, 3],
      ['release', undefined, 3],
    ])
    expect([report.structural, report.melodyKept]).toEqual([0, 4])
  })

  it('is proposed at the fullest density where a short step leads into a long note under one finger', () => {
    const bends = (o: Ornament) =>
      CORPUS.flatMap((tune) => ornamented(tune, 'melody-bass', 3, o).layer.notes).filter((n) => n.bend)
    expect(bends(2)).toEqual([])
    const found = bends(3)
    expect(found.length).toBeGreaterThan(0)
    for (const n of found) {
      expect(n.place.string).toBeLessThanOrEqual(3)
      expect(n.place.fret).toBeGreaterThanOrEqual(2)
      expect(n.left).toBeGreaterThanOrEqual(2)
    }
    // Doubled courses are too stiff.
    const mandolin = setupOf('mandolin')
    for (const tune of CORPUS.slice(0, 8))
      expect(
        ornamented(tune, 'flatpicked-lead', 2, 3, { setup: mandolin }).layer.notes.some((n) => n.bend),
      ).toBe(false)
  })

  it('without room or without a finger behind it is said, and slid or plucked instead', () => {
    for (const locks of [asked(2, 3, 1), asked(3, 7, 3)]) {
      const { ornamentsLeft, report, layer } = ornamented(tune, 'flatpicked-lead', 2, 1, { locks })
      expect(ornamentsLeft).toMatchObject([{ measure: 0, tick: 10_080, reason: 'noBend' }])
      expect(layer.notes[1]!.bend).toBeUndefined()
      expect(report.structural).toBe(0)
    }
  })

  it('is judged by the audit: one finger, one fret, upward, with room', () => {
    const { json } = ornamented(tune, 'flatpicked-lead', 2, 1, { locks: asked(2, 3, 3) })
    const broken = (change: object) => {
      const notes = json.notes.map((n) => (n.technique === 'bend' ? { ...n, ...change } : n))
      return audit(finishedTabOf({ ...json, notes })).findings.map((f) => f.kind)
    }
    expect(broken({ leftFinger: 2 })).toContain('arrivalFrom')
    expect(broken({ fret: 5, midi: 66 })).toContain('arrivalFrom')
    expect(broken({ fret: 1, midi: 62 })).toContain('bendHard')
    expect(broken({ bend: 5 })).toContain('bendRoom')
    expect(broken({ bend: 0, midi: 62 })).toContain('arrivalFrom')
    expect(broken({ bend: 1 })).toContain('wrongPitch')
  })
})
