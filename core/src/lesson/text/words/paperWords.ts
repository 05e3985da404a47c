import type { Feel } from '../../../document/feel.ts'
import type { CeilingReason } from '../../../hand/effort/effort.ts'
import type { Mode } from '../../../music/pitch/key.ts'
import type { Caution } from '../../steps/cautions.ts'
import type { PieceDifference } from '../../practice/differences.ts'
import type { Drill } from '../../practice/drill.ts'
import type { OddSlowly } from '../../practice/oddSlowly.ts'

/** What lessons and handouts say beside the steps, in one language; braces are filled. */
export interface PaperWords {
  readonly differs: Readonly<Record<PieceDifference['kind'], string>> & {
    readonly same: string
    readonly like: string
  }
  readonly learn: {
    readonly change: string
    readonly piece: string
    readonly pieceOne: string
    readonly join: string
    readonly whole: string
    readonly warmUp: string
    readonly rest: string
    readonly goesOn: string
    readonly again: string
    readonly minutes: string
  }
  readonly recipe: {
    readonly tempos: string
    readonly ceiling: string
    readonly reason: Readonly<Record<CeilingReason, string>>
    readonly time: string
  }
  readonly odd: Readonly<Record<OddSlowly, string>>
  readonly cautions: Readonly<Record<Caution | 'general' | 'clinician', string>>
  readonly drills: Readonly<Record<Drill, string>> & { readonly of: string }
  readonly modes: Readonly<Record<Mode, string>>
  readonly blocks: {
    readonly capo: string
    readonly noCapo: string
    readonly tuning: string
    readonly soundsIn: string
    readonly shapesIn: string
    readonly tempo: string
    readonly feel: Readonly<Record<Feel, string>>
    readonly shapes: string
    readonly patterns: string
    readonly frames: string
    readonly strum: string
    readonly steps: string
    readonly drills: string
    readonly plan: string
    readonly form: string
    readonly formSum: string
    readonly lyrics: string
    readonly partner: string
    readonly notes: string
    readonly leave: string
    readonly page: string
    readonly nothing: string
  }
  /** The lesson file's own page. */
  readonly lesson: {
    readonly next: string
    readonly back: string
    readonly play: string
    readonly stop: string
    readonly tempo: string
    readonly loop: string
    readonly loopOff: string
    readonly loopMeasure: string
    readonly loopPiece: string
    readonly pieces: string
    readonly version: string
    readonly asTaught: string
    readonly script: string
    readonly log: string
    readonly logHint: string
    readonly reached: string
    readonly clean: string
    readonly minutes: string
    readonly note: string
    readonly add: string
    readonly send: string
    readonly empty: string
    readonly loud: string
    readonly step: string
    /** Practising: today's list with why each piece is on it, the way up, how it went. */
    readonly practise: string
    readonly due: string
    readonly stuck: string
    readonly fresh: string
    readonly oneMinutes: string
    readonly nothingDue: string
    readonly needed: string
    readonly goal: string
    readonly wasClean: string
    readonly notYet: string
    readonly playPiece: string
    readonly intoLog: string
    readonly practised: string
  }
}
