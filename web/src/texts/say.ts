import type { TFunction } from 'i18next'
import type { Problem } from '@velvet-porch/core/input'
import type { Message } from '@velvet-porch/core/messages'

/** A text by a code of the core, which has checked the values where it made the message. */
const said = (t: TFunction, code: string, values: Message['values']): string =>
  (t as (key: string, values: Message['values']) => string)(`said.${code}`, values)

/** A message of the core in words. */
export const say = (t: TFunction, { code, values }: Message): string => said(t, code, values)

/** What is odd in a text, and what was taken for it. */
export const problemWords = (t: TFunction, { says: { code, values } }: Pick<Problem, 'says'>) => ({
  what: said(t, `${code}.what`, values),
  taken: said(t, `${code}.taken`, values),
})

/** A problem with its place, on one line. */
export function problemText(t: TFunction, problem: Problem): string {
  const { line, column } = problem
  const said = problemWords(t, problem)
  return line === 0 ? t('problem.ofAll', said) : t('problem.at', { line, column, ...said })
}
