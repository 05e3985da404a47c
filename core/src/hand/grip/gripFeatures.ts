/**
 * What is awkward about holding a chord shape with certain fingers, as counts and fret distances. One price a feature
 * (`fingeringWeights.ts`, fitted on the open chord data set) makes the cost; the features are also the reasons.
 */
export const GRIP_FEATURES = [
  'barre1',
  'barre2',
  'barre3',
  'barre4',
  'indexBarreStrings',
  'ringBarreStrings',
  'higherInsideIndexBarre',
  'higherInsideOtherBarre',
  'mutedInsideIndexBarre',
  'mutedInsideOtherBarre',
  'indexBarreShort',
  'noIndex',
  'little',
  'littleOnTopOverBarre',
  'ringOnTopOverBarre',
  'lowestByMiddle',
  'lowestByRing',
  'lowestByLittle',
  'middleBarreStrings',
  'littleBarreStrings',
  'barreToTop',
  'middleFarFromIndex',
  'ringFarFromIndex',
  'stretch23',
  'stretch24',
  'stretch34',
  'slack12',
  'slack13',
  'slack14',
  'slack23',
  'slack24',
  'slack34',
  'skippedFinger',
  'reversed',
  'diagonalGapToBass',
  'diagonalGapToTreble',
  'ringWithoutMiddle',
  'littleWithoutRing',
  'gapOverIndexBarre',
  'aroundHigherFinger',
  'upWithOpenStrings',
  'fingers',
  'thumb',
] as const

export type GripFeature = (typeof GRIP_FEATURES)[number]

const AT = Object.fromEntries(GRIP_FEATURES.map((name, i) => [name, i])) as Record<GripFeature, number>

/** Where the barred strings past two are counted, by finger. */
const BARRE_STRINGS = [
  0,
  AT.indexBarreStrings,
  AT.middleBarreStrings,
  AT.ringBarreStrings,
  AT.littleBarreStrings,
]

/**
 * One finger of a grip: from string `top` (highest-pitched) to `low`, all at `fret`. `fret` 0 means that the finger is
 * free. Frets count in the grip's own frame: only their differences matter.
 */
export interface FingerPlace {
  fret: number
  top: number
  low: number
}

/**
 * Measures a grip into `out` (length of `GRIP_FEATURES`), which is cleared first.
 * @param hand places of fingers 1–4 at indexes 1–4, of the thumb at 5; index 0 is unused
 * @param frets fret by string, string 1 first: null muted, 0 open
 * @param capo fret of the capo, in the same count as the frets
 */
export function gripFeatures(
  hand: readonly FingerPlace[],
  frets: readonly (number | null)[],
  capo: number,
  out: Float64Array,
): void {
  out.fill(0)
  const one = hand[1]!
  const two = hand[2]!
  const three = hand[3]!
  const four = hand[4]!
  let used = 0
  for (let f = 1; f <= 4; f++) {
    const place = hand[f]!
    if (place.fret === 0) continue
    used++
    if (place.low > place.top) barre(f, place, frets, out)
  }
  out[AT.fingers] = used
  if (hand[5]!.fret > 0) out[AT.thumb] = 1
  if (one.fret === 0) out[AT.noIndex] = used > 0 ? 1 : 0
  if (four.fret > 0) {
    out[AT.little] = 1
    if (one.low > one.top && four.top === 1) out[AT.littleOnTopOverBarre] = 1
    if (three.fret === 0) out[AT.littleWithoutRing] = 1
  }
  if (three.fret > 0 && two.fret === 0) out[AT.ringWithoutMiddle] = 1
  if (one.fret > 0) {
    if (two.fret > 0) pair(one, two, 1, AT.middleFarFromIndex, AT.slack12, out)
    if (three.fret > 0) pair(one, three, 2, AT.ringFarFromIndex, AT.slack13, out)
    if (four.fret > 0) out[AT.slack14] = Math.max(0, 3 - (four.fret - one.fret))
  }
  if (two.fret > 0 && three.fret > 0) pair(two, three, 1, AT.stretch23, AT.slack23, out)
  if (two.fret > 0 && four.fret > 0) pair(two, four, 2, AT.stretch24, AT.slack24, out)
  if (three.fret > 0 && four.fret > 0) pair(three, four, 1, AT.stretch34, AT.slack34, out)
  if (one.low > one.top) {
    if (three.fret > 0 && three.top === 1) out[AT.ringOnTopOverBarre] = 1
    if (one.top === 1) out[AT.barreToTop] = 1
  }
  if (frets.includes(0)) {
    let position = Infinity
    for (let f = 1; f <= 4; f++)
      if (hand[f]!.fret > 0) position = Math.min(position, hand[f]!.fret - capo - f)
    if (position > 0 && position < 3) out[AT.upWithOpenStrings] = position
  }
  let lowest = 0
  for (let f = 1; f <= 4; f++)
    if (hand[f]!.fret > 0 && (lowest === 0 || hand[f]!.low > hand[lowest]!.low)) lowest = f
  if (lowest === 2) out[AT.lowestByMiddle] = 1
  if (lowest === 3) out[AT.lowestByRing] = 1
  if (lowest === 4) out[AT.lowestByLittle] = 1
  for (let a = 1; a <= 3; a++) {
    if (hand[a]!.fret === 0) continue
    for (let b = a + 1; b <= 4; b++) if (hand[b]!.fret > 0) relation(hand, a, b, frets, out)
  }
}

function barre(
  finger: number,
  place: FingerPlace,
  frets: readonly (number | null)[],
  out: Float64Array,
): void {
  const index = finger === 1
  out[AT.barre1 + finger - 1] = 1
  let barred = 0
  for (let string = place.top; string <= place.low; string++) {
    const fret = frets[string - 1]!
    if (fret === place.fret) barred++
    else if (fret === null) out[index ? AT.mutedInsideIndexBarre : AT.mutedInsideOtherBarre]! += 1
    else out[index ? AT.higherInsideIndexBarre : AT.higherInsideOtherBarre]! += 1
  }
  out[BARRE_STRINGS[finger]!]! += Math.max(0, barred - 2)
  if (index) {
    for (let string = 1; string < place.top; string++)
      if ((frets[string - 1] ?? 0) > 0) out[AT.indexBarreShort] = 1
  }
}

function pair(
  a: FingerPlace,
  b: FingerPlace,
  natural: number,
  stretchAt: number,
  slackAt: number,
  out: Float64Array,
): void {
  const distance = b.fret - a.fret
  out[stretchAt]! += Math.max(0, distance - natural)
  out[slackAt]! += Math.max(0, natural - distance)
}

function relation(
  hand: readonly FingerPlace[],
  a: number,
  b: number,
  frets: readonly (number | null)[],
  out: Float64Array,
): void {
  const first = hand[a]!
  const second = hand[b]!
  const distance = second.fret - first.fret
  if (distance === 0) {
    if (second.top > first.low) out[AT.reversed]! += 1
    for (let f = a + 1; f < b; f++) if (hand[f]!.fret === 0) out[AT.skippedFinger]! += 1
    const from = Math.min(first.low, second.low) + 1
    const to = Math.max(first.top, second.top)
    let higher = from < to
    for (let string = from; string < to; string++) if ((frets[string - 1] ?? 0) <= first.fret) higher = false
    if (higher) out[AT.aroundHigherFinger]! += 1
    return
  }
  if (distance === 1) {
    let free = 0
    for (let f = a + 1; f < b; f++) if (hand[f]!.fret === 0) free++
    if (second.top > first.low) out[AT.diagonalGapToBass]! += free
    else if (second.low < first.top) out[AT.diagonalGapToTreble]! += free
    if (a === 1 && first.low > first.top && free > 0) out[AT.gapOverIndexBarre]! += free
  }
}
