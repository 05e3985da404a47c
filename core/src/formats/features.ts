import type { Score } from '../document/score.ts'
import { stringsOfCapo } from './stringsOfCapo.ts'

/** What a tune with its tab can hold, and a format can keep or lose. */
export const FEATURES = [
  'notes',
  'otherVoices',
  'chords',
  'form',
  'words',
  'songWords',
  'sections',
  'tempo',
  'ornaments',
  'slurs',
  'source',
  'rights',
  'tuning',
  'partialCapo',
  'places',
  'leftHand',
  'rightHand',
  'techniques',
  'marks',
  'remarks',
  'swing',
  'settled',
  'versions',
  'styles',
] as const
export type Feature = (typeof FEATURES)[number]

/** Which of them a score has. */
export function featuresOf({ tune, arrangement }: Score): ReadonlySet<Feature> {
  const notes = arrangement?.base.notes ?? []
  const own = tune.events.filter((e) => e.voice === 0)
  const has: Readonly<Record<Feature, boolean>> = {
    notes: own.some((e) => e.pitch) || notes.length > 0,
    otherVoices: tune.events.some((e) => e.voice > 0 && e.pitch),
    chords: tune.chords.length > 0,
    form: tune.measures.some(
      (m) => m.repeatStart || m.repeatEnd > 1 || m.endings.length > 0 || m.jump !== undefined,
    ),
    words: own.some((e) => (e.lyric ?? '') !== ''),
    songWords: (tune.song?.lines.length ?? 0) > 0,
    sections: tune.sections.length > 0,
    tempo: tune.tempos.some((t) => t.stated),
    ornaments: own.some((e) => e.graces.length > 0 || e.ornaments.length > 0),
    slurs: own.some((e) => e.slurred),
    source: tune.source !== undefined || tune.composer !== undefined,
    rights: tune.rights !== undefined,
    tuning: arrangement !== undefined,
    partialCapo: arrangement !== undefined && stringsOfCapo(arrangement.setup) === 'some',
    places: notes.length > 0,
    leftHand: notes.some((n) => n.left !== 0),
    rightHand: notes.some((n) => n.right !== 'none'),
    techniques: notes.some((n) => n.attack !== 'pluck' || n.graces !== undefined || n.bend !== undefined),
    marks: notes.some(
      (n) => n.letRing ?? n.palmMute ?? n.accent ?? n.staccato ?? n.fermata ?? n.rolled ?? n.vibrato,
    ),
    remarks: notes.some((n) => n.remark !== undefined || n.dynamic !== undefined || n.touch !== undefined),
    swing: arrangement?.regions.some((r) => r.feel !== undefined) ?? false,
    settled: (arrangement?.base.locks.length ?? 0) > 0 || (tune.pins?.length ?? 0) > 0,
    versions: (arrangement?.variants.length ?? 0) > 0,
    styles: arrangement !== undefined,
  }
  return new Set(FEATURES.filter((f) => has[f]))
}
