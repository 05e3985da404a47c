import { present } from '@velvet-porch/core/invariant'
import {
  namedTunings,
  setupOf,
  type InstrumentKind,
  type Player,
  type TuningId,
} from '@velvet-porch/core/instrument'
import {
  tidyRegions,
  type ArrangementDoc,
  type Level,
  type Style,
  type TuneDoc,
} from '@velvet-porch/core/document'
import {
  ALL_SHIFTS,
  readRange,
  VOICE_TYPES,
  wholeTune,
  type FitQuestion,
  type Partner,
  type RangeFault,
  type VoiceRange,
  type VoiceType,
} from '@velvet-porch/core/arrange'

/** All that is chosen on the Fit stage besides what matters how much. */
export interface Conditions {
  readonly instrument: InstrumentKind
  /** `bench`: style and level as on the bench. */
  readonly style: Style | 'bench'
  readonly level: Level
  readonly tunings: readonly TuningId[]
  /** `any`, or the one shift that is allowed. */
  readonly keys: 'any' | number
  readonly wanted: number
  readonly capo: readonly [number, number]
  readonly voice: 'none' | VoiceType | 'typed'
  readonly range: string
  readonly partners: readonly Partner[]
}

/** What is chosen at first: the bench's instrument, three tunings, all keys, a capo up to the seventh fret. */
export function firstConditions(doc: ArrangementDoc | null): Conditions {
  const instrument = doc?.setup.instrument.kind ?? 'guitar'
  return {
    instrument,
    style: doc ? 'bench' : 'melody-bass',
    level: 2,
    tunings: instrument === 'guitar' ? ['standard', 'dropD', 'dadgad'] : ['standard'],
    keys: 'any',
    wanted: 0,
    capo: [0, 7],
    voice: 'none',
    range: '',
    partners: [],
  }
}

/** The singer's range, or why it is none. */
export function voiceOf({ voice, range }: Pick<Conditions, 'voice' | 'range'>): {
  range?: VoiceRange
  fault?: RangeFault
} {
  if (voice === 'none') return {}
  if (voice !== 'typed') return { range: VOICE_TYPES[voice] }
  return range.trim() === '' ? {} : readRange(range)
}

/** The question that the conditions ask. */
export function questionOf(
  tune: TuneDoc,
  doc: ArrangementDoc | null,
  c: Conditions,
  player: Player,
): FitQuestion {
  const named = namedTunings(c.instrument)
  const { range } = voiceOf(c)
  const [low, high] = c.capo
  const setup = setupOf(
    c.instrument,
    doc?.setup.instrument.kind === c.instrument ? doc.setup.tuning : undefined,
  )
  return {
    tune,
    regions:
      c.style === 'bench' ? tidyRegions(tune, present(doc).regions) : wholeTune(tune, c.style, c.level),
    setup: { ...setup, player },
    tunings: named.filter((n) => c.tunings.includes(n.id)).map((n) => n.tuning),
    shifts: c.keys === 'any' ? ALL_SHIFTS : [c.keys],
    capos: Array.from({ length: high - low + 1 }, (_, i) => low + i),
    wanted: c.wanted,
    ...(range ? { voice: range } : {}),
  }
}
