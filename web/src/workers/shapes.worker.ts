import type { ChordReading } from '@velvet-porch/core/music'
import type { Setup } from '@velvet-porch/core/instrument'
import {
  findShapes,
  progressionPath,
  sameNotes,
  filtersToRelax,
  type FoundShapes,
  type ProgressionStep,
  type ProgressionFilters,
  type SameNotes,
  type ShapeFilters,
  type ShapeFilterName,
} from '@velvet-porch/core/chords'
import { serve } from './serve.ts'

export interface ShapesReply extends FoundShapes {
  /** Where nothing was found: filters that, given up alone, would let shapes through. */
  readonly relax: readonly ShapeFilterName[]
}

const api = {
  find(setup: Setup, chord: ChordReading, filters: ShapeFilters, everything: boolean): ShapesReply {
    const found = findShapes(setup, chord, filters, everything)
    return { ...found, relax: found.zones.length > 0 ? [] : filtersToRelax(setup, chord, filters) }
  },
  same(setup: Setup, frets: readonly (number | null)[]): SameNotes {
    return sameNotes(setup, frets)
  },
  path(setup: Setup, chords: readonly ChordReading[], filters: ProgressionFilters): ProgressionStep[] {
    return progressionPath(setup, chords, filters)
  },
}

export type ShapesApi = typeof api
serve(api)
