import { present } from '@velvet-porch/core/invariant'
import type { ChordReading } from '@velvet-porch/core/music'
import type { Setup } from '@velvet-porch/core/instrument'
import type { ProgressionFilters, ShapeFilters } from '@velvet-porch/core/chords'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { ShapesApi } from '../../workers/shapes.worker.ts'
import { Supervised } from '../../workers/supervised.ts'

/** The worker that looks for shapes. */
const finder = new Supervised<ShapesApi>(
  () => new Worker(new URL('../../workers/shapes.worker.ts', import.meta.url), { type: 'module' }),
)

/** The shapes of a chord; the last ones stay while the next are looked for. */
export const useFound = (
  setup: Setup,
  chord: ChordReading | undefined,
  filters: ShapeFilters,
  everything: boolean,
) =>
  useQuery({
    queryKey: ['shapes', setup, chord, filters, everything],
    queryFn: () => finder.call('find', setup, present(chord), filters, everything),
    enabled: chord !== undefined,
    placeholderData: keepPreviousData,
    networkMode: 'always',
  })

/** Other grips that sound the same. */
export const useSameNotes = (setup: Setup, frets: readonly (number | null)[] | undefined) =>
  useQuery({
    queryKey: ['same', setup, frets],
    queryFn: () => finder.call('same', setup, present(frets)),
    enabled: frets !== undefined,
    networkMode: 'always',
  })

/** The easiest way through a progression. */
export const usePath = (setup: Setup, chords: readonly ChordReading[], filters: ProgressionFilters) =>
  useQuery({
    queryKey: ['path', setup, chords, filters],
    queryFn: () => finder.call('path', setup, chords, filters),
    enabled: chords.length > 0,
    placeholderData: keepPreviousData,
    networkMode: 'always',
  })
