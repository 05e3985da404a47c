import { featureMessage, FORMATS, formatOf, leftBehind, type Format } from '@velvet-porch/core/formats'
import { UsageError } from '../usage.ts'
import { say } from '../words.ts'

/** Formats that a browser draws: the page of a handout, and a drawing as pixels. */
const DRAWN = ['pdf', 'png'] as const
type Drawn = (typeof DRAWN)[number]

/** What a file is to be written as. */
export type Target = { readonly ending: string } & ({ readonly format: Format } | { readonly drawn: Drawn })

const ENDINGS = [...FORMATS.filter((f) => f.writes).flatMap((f) => f.endings.slice(0, 1)), ...DRAWN]

/** What a file is to be, by its ending; a usage error names those that can be written. */
export function targetOf(fileOrEnding: string): Target {
  const named = /^[a-z]+(?:\.[a-z]+)?$/i.test(fileOrEnding) ? `x.${fileOrEnding}` : fileOrEnding
  const format = formatOf(named)
  const ending =
    format?.endings.find((e) => named.toLowerCase().endsWith(`.${e}`)) ??
    named.replace(/^.*\./, '').toLowerCase()
  const drawn = DRAWN.find((d) => d === ending)
  if (drawn) return { ending, drawn }
  if (!format?.writes)
    throw new UsageError(`"${fileOrEnding}" is no file that can be written; use ${ENDINGS.join(', ')}.`)
  return { ending, format }
}

/** True for a target that is written from a tab. */
export const needsTab = (target: Target): boolean => 'drawn' in target || target.format.writes?.of === 'tab'

/** What is not carried into a file, in a line; empty where all is. */
export function leftText(target: Target, score: Parameters<typeof leftBehind>[1]): string {
  if ('drawn' in target) return ''
  const left = leftBehind(target.format, score)
  return left.length === 0 ? '' : `Not carried: ${left.map((f) => say(featureMessage(f))).join('; ')}.`
}
