import type { Comparison } from '@velvet-porch/core/taste'
import { TASTE_FEATURES, type TastePrices } from '@velvet-porch/core/document'
import type { Teacher } from './teachers.ts'

/** What was learned from a teacher, and how far tunes that were never corrected come out their way. */
export interface Learned {
  readonly teacher: Teacher
  readonly corrections: number
  readonly made: readonly Comparison[]
  readonly learned: TastePrices
  readonly ms: number
  /** Share of notes at the teacher's places under the teacher's fingers: as the house has them, and as learned. */
  readonly house: number
  readonly own: number
  readonly faults: number
}

interface Figures {
  readonly teachers: readonly Learned[]
  readonly atRandomPrices: readonly TastePrices[]
  readonly many: { readonly count: number; readonly ms: number }
  readonly fingers: { readonly before: number; readonly after: number }
  readonly heldOut: number
}

const percent = (share: number) => `${(100 * share).toFixed(1)} %`

const pricesText = (prices: TastePrices) =>
  TASTE_FEATURES.flatMap((f) => (prices[f] === undefined ? [] : [`${f} ${prices[f].toFixed(1)}`])).join(
    ', ',
  ) || '–'

/** Share of what was missing that was learned. */
const gained = ({ house, own }: Learned) => (own - house) / (1 - house)

/** docs/taste.md. */
export function pageText({ teachers, atRandomPrices, many, fingers, heldOut }: Figures): string {
  const rows = teachers.map(
    (l) =>
      `| ${l.teacher.name} | ${pricesText(l.teacher.prices)} | ${l.corrections} | ${pricesText(l.learned)} | ${percent(l.house)} | ${percent(l.own)} | ${percent(gained(l))} |`,
  )
  const half = teachers.filter((l) => gained(l) >= 0.5).length
  const faults = teachers.reduce((sum, l) => sum + l.faults, 0)
  const untouched = atRandomPrices.filter((p) => Object.keys(p).length === 0).length
  return `# Taste

Written by \`npm run taste\`. What the app learns of how somebody plays, how, and what it comes to.

## What is noted

- **Another way that was kept** ("Why this grip, and other ways"): all ways that were offered, each with the house's price and how often each
  feature occurs in it, and which was taken.
- **Fingers that were set by hand** where a chord's shape is held: the shape with these fingers; those that are not down as they go best with them.
- **Fills that were taken out** by hand.

A feature is a count over what is struck (\`core/src/taste/momentCounts.ts\`): ${TASTE_FEATURES.map((f) => `\`${f}\``).join(', ')}. The solver and the
finished tab count the same; a test compares them.

## What is made of it

- A **shape** that was taken at two places, with no other since, is offered to be kept, with the places.
- **Prices**: a multinomial logistic choice among the ways that were offered, over the house's price and the features, with a prior at the house's own
  prices (Newton's method, \`fitTaste.ts\`). How closely somebody keeps to the house's prices, and how loath they are to change what stands, are fitted
  too. A feature is taken in only where it explains the choices much better (twice the log likelihood grows by 9), so that somebody who takes
  anything keeps the house's prices. The order of corrections does not matter.
- **Fills** are dear for whoever took them out in three measures.

What is kept is an entry in plain words, with where it comes from, a strength, where it holds (always, a student, a tune), on or off, on the page *Taste*; written by
hand too. A taste is a file (\`porch arrange --taste FILE\`).

## What it does

Entries are prices on the same named features, and shapes as pins. They go into the candidates' prices beside the house's, so the search is as exact
as before, "why this grip" names them, and hard rules, locks and reach come first. A shape that a hand cannot hold is left out for that hand. An
arrangement keeps the taste that it was made with; another one since is said, with the measures that would change, shown, heard and taken in one step.

## Figures

Simulated teachers correct arpeggio at level 3 on one half of the traditional tunes, at most 30 times, in six rounds, each on pages made with what
was learned so far: at every other moment they look at up to eight ways and take the one that is cheapest to them, and afterwards at the moments between while corrections are left. Then the other half (${heldOut} tunes) is
arranged to what was learned, and compared note for note (string, fret, finger) with what they would have.

| teacher | likes (−) and dislikes (+) | corrections | learned | agrees at first | after | of what was missing |
|---|---|---|---|---|---|---|
${rows.join('\n')}

- At least half of what was missing: ${half} of ${teachers.length} teachers.
- ${atRandomPrices.length} teachers who take anything: ${untouched} leave the house's prices untouched${
    untouched < atRandomPrices.length
      ? `; the others ${atRandomPrices
          .filter((p) => Object.keys(p).length > 0)
          .map(pricesText)
          .join('; ')}`
      : ''
  }.
- Structural faults on all these pages: ${faults}.
- A fit of ${many.count} comparisons: ${many.ms.toFixed(0)} ms on one thread.
- The open chord data set as a teacher of fingers: prices fitted on the fingers of one half raise the share of notes under its finger in the other half from
  ${percent(fingers.before)} (no prices, hard rules alone) to ${percent(fingers.after)}.
`
}
