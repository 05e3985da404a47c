import type { TabNote } from '@velvet-porch/core/document'
import type { EditCommand } from '@velvet-porch/core/edit'

/** The same pitches on the neighbouring strings, in the order in which none is in another's way. */
export const restringEdits = (notes: readonly TabNote[], by: 1 | -1): EditCommand[] =>
  [...notes]
    .sort((a, b) => by * (b.place.string - a.place.string))
    .map((n) => ({ do: 'restring', note: n.id, string: n.place.string + by }))
