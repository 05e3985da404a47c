import { STANDARD_TUNING, type InstrumentKind, type Tuning } from '@velvet-porch/core/instrument'
import {
  tidyRegions,
  type ArrangementDoc,
  type Lock,
  type Region,
  type TuneDoc,
} from '@velvet-porch/core/document'
import { wholeTune } from '@velvet-porch/core/arrange'

/** All that is chosen on the bench: what is arranged where, for which instrument, and what is to stay as it is. */
export interface Settings {
  readonly regions: readonly Region[]
  readonly instrument: InstrumentKind
  readonly tuning: Tuning
  readonly capo: number
  /** Semitones from the tune's own key; absent: none. */
  readonly shift?: number
  /** The octave that is asked for; absent: the arranger's choice. */
  readonly octave?: number
  readonly locks: readonly Lock[]
}

/** What a tune is arranged as until something is chosen. */
const firstSettings = (tune: TuneDoc): Settings => ({
  // Chords without a melody can only be accompanied.
  regions: wholeTune(
    tune,
    tune.events.some((e) => e.pitch) || tune.chords.length === 0 ? 'melody-bass' : 'strum',
    1,
  ),
  instrument: 'guitar',
  tuning: STANDARD_TUNING,
  capo: 0,
  locks: [],
})

/** The settings that an arrangement was made with; the first ones where there is none. */
export const settingsOf = (tune: TuneDoc, doc: ArrangementDoc | null | undefined): Settings =>
  doc
    ? {
        regions: tidyRegions(tune, doc.regions),
        instrument: doc.setup.instrument.kind,
        tuning: doc.setup.tuning,
        capo: doc.setup.capo[0]!,
        ...(doc.setup.shift ? { shift: doc.setup.shift } : {}),
        ...(doc.setup.octave === undefined ? {} : { octave: doc.setup.octave }),
        locks: doc.base.locks,
      }
    : firstSettings(tune)
