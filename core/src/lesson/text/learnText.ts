import type { PieceDifference } from '../practice/differences.ts'
import type { LearningStep } from '../practice/learningOrder.ts'
import type { PlanItem } from '../practice/lessonPlan.ts'
import type { Piece } from '../practice/piece.ts'
import type { Recipe } from '../practice/recipe.ts'
import { countText } from './stepText.ts'
import { fill } from './template.ts'
import type { PaperWords } from './words/paperWords.ts'
import type { Wording } from './words/wording.ts'

/** How a language says things, with the numbers of the measures as they are printed. */
export interface Phrasing {
  readonly words: Wording
  readonly paper: PaperWords
  readonly numbers: readonly number[]
}

/** One difference between like pieces, as a sentence without its stop. */
export function differenceText(d: PieceDifference, { words, paper, numbers }: Phrasing): string {
  return fill(paper.differs[d.kind], {
    measure: numbers[d.measure]!,
    count: countText(d.count, words),
    string: d.string,
    ...('fret' in d ? { fret: d.fret } : {}),
    ...('was' in d ? { was: d.was } : {}),
    ...('finger' in d ? { finger: words.fingers[d.finger] } : {}),
    ...('picking' in d ? { picking: words.picking[d.picking] } : {}),
    ...('attack' in d ? { attack: fill(words.attack[d.attack], { notes: '' }).trim() } : {}),
  })
}

/** The name of a piece with its measures. */
export function pieceText(piece: Piece, { paper, numbers }: Phrasing): string {
  // A pickup belongs to what it leads to.
  const [from, to] = [Math.max(1, numbers[piece.from]!), Math.max(1, numbers[piece.to]!)]
  const values = { number: piece.number, from, to }
  return fill(from === to ? paper.learn.pieceOne : paper.learn.piece, values)
}

/** One thing to learn, in words. */
export function learningText(step: LearningStep, phrasing: Phrasing): string {
  const { paper, numbers } = phrasing
  switch (step.kind) {
    case 'change':
      return fill(paper.learn.change, { measure: numbers[step.spot.measure]! })
    case 'piece':
      return pieceText(step.piece, phrasing)
    case 'join':
      return fill(paper.learn.join, { from: step.from.number, to: step.to.number })
    case 'whole':
      return paper.learn.whole
  }
}

/** One item of a lesson plan, in words. */
export function planText({ what, goesOn }: PlanItem, phrasing: Phrasing): string {
  const { learn } = phrasing.paper
  if (goesOn) return fill(learn.goesOn, { what: planText({ what, minutes: 0 }, phrasing) })
  return what.kind === 'warmUp' || what.kind === 'rest' || what.kind === 'again'
    ? learn[what.kind]
    : learningText(what, phrasing)
}

/** A recipe in sentences: the tempos, what the hand should manage, how long it takes. */
export function recipeText(r: Recipe, { paper, numbers }: Phrasing): string[] {
  const { recipe } = paper
  return [
    fill(recipe.tempos, { clean: r.clean, tempos: r.tempos.join(', ') }),
    ...(r.ceiling && r.ceiling.bpm < r.goalBpm
      ? [
          fill(recipe.ceiling, {
            bpm: r.ceiling.bpm,
            measure: numbers[r.ceiling.measure]!,
            reason: recipe.reason[r.ceiling.reason],
          }),
        ]
      : []),
    fill(recipe.time, { n: Math.max(1, Math.round(r.seconds / 60)) }),
  ]
}
