import type { ArrangementDoc, Layer } from '../document/arrangement.ts'
import type { Pos, TuneDoc } from '../document/tune.ts'
import { SchemaError } from './common.ts'

/** Positions in measures that there are not would have no place in time. */
function checkPlaces(
  what: string,
  measures: ReadonlySet<string>,
  places: Iterable<readonly [where: string, pos: Pos]>,
): void {
  for (const [where, pos] of places)
    if (!measures.has(pos.measure))
      throw new SchemaError(what, where, `the tune has no measure "${pos.measure}"`)
}

/** What of a tune refers to its measures refers to measures that it has, each of them once. @throws SchemaError */
export function checkTuneReferences(tune: TuneDoc, what: string): void {
  const measures = new Set(tune.measures.map((m) => m.id))
  if (measures.size < tune.measures.length)
    throw new SchemaError(what, 'measures', 'two measures have one id')
  checkPlaces(what, measures, [
    ...tune.events.map((e, i) => [`events[${i}].pos`, e.pos] as const),
    ...tune.chords.map((c, i) => [`chords[${i}].pos`, c.pos] as const),
    ...tune.tempos.map((t, i) => [`tempos[${i}].pos`, t.pos] as const),
    ...tune.sections.map((s, i) => [`sections[${i}]`, { measure: s.measure, tick: 0 }] as const),
  ])
  if (new Set(tune.events.map((e) => e.id)).size < tune.events.length)
    throw new SchemaError(what, 'events', 'two notes have one id')
}

/** A setup has a tuning and a capo for each string, and the tab stands on strings that there are. @throws SchemaError */
export function checkStrings({ setup, base, variants }: ArrangementDoc, what: string): void {
  const { strings } = setup.instrument
  if (setup.tuning.length !== strings || setup.capo.length !== strings)
    throw new SchemaError(what, 'setup', `tuning and capo are not those of ${strings} strings`)
  const check = (layer: Layer, where: string) => {
    layer.notes.forEach((n, i) => {
      for (const place of [n.place, ...(n.graces ?? []).map((g) => g.place)])
        if (place.string > strings)
          throw new SchemaError(what, `${where}.notes[${i}]`, `there is no string ${place.string}`)
    })
    layer.grips.forEach((g, i) => {
      for (const p of [...g.pressed, ...(g.ready ?? [])])
        if (p.string > strings)
          throw new SchemaError(what, `${where}.grips[${i}]`, `there is no string ${p.string}`)
    })
  }
  check(base, 'base')
  variants.forEach((v, i) => check(v.layer, `variants[${i}].layer`))
}

/** What of an arrangement refers to its tune's measures refers to measures that the tune has. @throws SchemaError */
export function checkTabReferences(doc: ArrangementDoc, tune: TuneDoc, what: string): void {
  const measures = new Set(tune.measures.map((m) => m.id))
  const ofLayer = (layer: Layer, where: string): (readonly [string, Pos])[] => [
    ...layer.notes.map((n, i) => [`${where}.notes[${i}].pos`, n.pos] as const),
    ...layer.grips.flatMap((g, i) => [
      [`${where}.grips[${i}].pos`, g.pos] as const,
      [`${where}.grips[${i}].until`, g.until] as const,
    ]),
  ]
  checkPlaces(what, measures, [
    ...ofLayer(doc.base, 'base'),
    ...doc.regions.flatMap((r, i) => [
      [`regions[${i}].from`, { measure: r.from, tick: 0 }] as const,
      [`regions[${i}].to`, { measure: r.to, tick: 0 }] as const,
    ]),
    ...doc.variants.flatMap((v, i) => ofLayer(v.layer, `variants[${i}].layer`)),
  ])
}
