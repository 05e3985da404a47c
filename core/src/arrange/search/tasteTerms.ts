import type { TasteFeature, TasteInForce } from '../../document/taste.ts'
import { TASTE_FEATURES } from '../../document/taste.ts'
import { countMoment, noCounts, type StruckNote } from '../../taste/momentCounts.ts'
import type { Place } from '../../instrument/setup.ts'
import type { AddTerm } from './addTerm.ts'
import type { Draft } from './draft.ts'
import type { Requirement } from './requirement.ts'
import { struckStrings } from './struckStrings.ts'

/** Terms of a taste in a cost begin with this. */
const TASTE_TERM = 'taste.'

/** The feature that a term of a cost is about, where it is a taste's. */
export const tasteOfTerm = (term: string): TasteFeature | undefined =>
  TASTE_FEATURES.find((f) => term === TASTE_TERM + f)

/** What a taste says of what a grip strikes, feature by feature. */
export function tasteTerms(
  strings: number,
  taste: TasteInForce,
  requirement: Requirement,
  draft: Draft,
  add: AddTerm,
): void {
  const struck = struckIn(requirement, draft)
  if (struck.length === 0) return
  const counts = noCounts()
  countMoment(struck, strings, counts)
  TASTE_FEATURES.forEach((feature, i) => {
    const price = taste.prices[feature] ?? 0
    if (price !== 0 && counts[i]! > 0) add(TASTE_TERM + feature, price * counts[i]!, false, counts[i])
  })
}

function struckIn(requirement: Requirement, draft: Draft): StruckNote[] {
  const struck: StruckNote[] = []
  const strike = (role: StruckNote['role'], place: Place, finger: number) =>
    struck.push({
      role,
      string: place.string,
      fret: place.fret,
      finger,
      harmonic: place.harmonic !== undefined || place.artificial === true,
    })
  const { melody, bass, inner } = draft
  if (melody && requirement.melody?.onset) strike('melody', melody, draft.melodyFinger)
  if (bass && requirement.bass?.onset) strike('bass', bass.place, draft.bassFinger)
  if (inner && requirement.inner?.onset) strike(requirement.inner.role, inner.place, draft.innerFinger)
  if (draft.strikes) {
    const { frets, pressed } = requirement.heldShapes[draft.heldShape]!
    for (const string of struckStrings(requirement, draft)) {
      if (string === melody?.string) continue
      const finger = pressed.find((p) => p.string === string)?.finger ?? 0
      strike('harmony', { string, fret: frets[string - 1]! }, finger)
    }
  }
  return struck
}
