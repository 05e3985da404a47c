import {
  findShapes,
  progressionPath,
  sameNotes,
  wishesToRelax,
  type ChordReading,
  type FoundShapes,
  type ProgressionStep,
  type ProgressionWishes,
  type SameNotes,
  type Setup,
  type ShapeWishes,
  type WishName,
} from '@velvet-porch/core'
import { serve } from './serve.ts'

export interface ShapesReply extends FoundShapes {
  /** Where nothing was found: wishes that, given up alone, would let shapes through. */
  readonly relax: readonly WishName[]
}

const api = {
  find(setup: Setup, chord: ChordReading, wishes: ShapeWishes, everything: boolean): ShapesReply {
    const found = findShapes(setup, chord, wishes, everything)
    return { ...found, relax: found.zones.length > 0 ? [] : wishesToRelax(setup, chord, wishes) }
  },
  same(setup: Setup, frets: readonly (number | null)[]): SameNotes {
    return sameNotes(setup, frets)
  },
  path(setup: Setup, chords: readonly ChordReading[], wishes: ProgressionWishes): ProgressionStep[] {
    return progressionPath(setup, chords, wishes)
  },
}

export type ShapesApi = typeof api
serve(api)
