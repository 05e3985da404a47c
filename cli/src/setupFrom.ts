import {
  highestCapo,
  INSTRUMENTS,
  readTuning,
  setupOf,
  type InstrumentKind,
  type Setup,
  type Tuning,
  type TuningFault,
} from '@velvet-porch/core/instrument'
import { oneOf, UsageError, wholeNumber } from './usage.ts'

const KINDS = Object.keys(INSTRUMENTS) as InstrumentKind[]

/** What the instrument options hold. */
export interface SetupValues {
  readonly instrument: string
  readonly tuning: string
  /** Absent: none, or the one that the text names. */
  readonly capo?: string
}

/**
 * The setup that the options ask for; throws a usage error that names what is wrong and the way out.
 * @param textCapo where the text says that the capo lies, for where no option does
 */
export function setupFrom(values: SetupValues, textCapo = 0): Setup {
  const kind = oneOf(values.instrument, KINDS, 'instrument')
  return setupOf(kind, tuningFrom(kind, values.tuning), {
    fret:
      values.capo === undefined
        ? Math.min(textCapo, highestCapo(kind))
        : wholeNumber(values.capo, 0, highestCapo(kind), 'capo'),
  })
}

/** The tuning that is named or spelled out; throws a usage error that says what is wrong with it. */
export function tuningFrom(kind: InstrumentKind, text: string): Tuning {
  const read = readTuning(kind, text)
  if ('fault' in read) throw new UsageError(tuningFaultText(read.fault))
  return read.tuning
}

function tuningFaultText(fault: TuningFault): string {
  if (fault.kind === 'count')
    return `A tuning needs ${fault.strings} notes from the lowest string up, for example "D A D G A D"; ${fault.found} were given.`
  if (fault.kind === 'notNote')
    return `"${fault.text}" (string ${fault.string}) is not a note; write C, F#, Bb or E2.`
  const way = fault.kind === 'tooHigh' ? 'above' : 'below'
  return `${fault.text} on string ${fault.string} is ${Math.abs(fault.semitones)} semitones ${way} its usual pitch: the string would ${fault.kind === 'tooHigh' ? 'break' : 'hang slack'}. Choose a nearer note.`
}
