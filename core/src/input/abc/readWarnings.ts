import type { Problem } from '../problem.ts'

const PLACE = /^(?:Music Line|Line)?:?\s*(\d+):(\d+):\s*/
const MARKED = /<span[^>]*>([\s\S]*?)<\/span>/

const EXPLAINED: readonly (readonly [RegExp, (marked: string) => readonly [string, string]])[] = [
  [
    /Unknown character ignored/,
    (c) => [`"${c}" means nothing here`, 'left out; the notes around it were read'],
  ],
  [/Can't nest triplets/, () => ['a tuplet starts inside another', 'the inner one was left out']],
  [/Unknown bar (symbol|type)/, (c) => [`"${c}" is no bar line`, 'left out']],
  [/Unknown decoration/, (c) => [`unknown ornament near "${c}"`, 'left out']],
  [/Expected 1, 2, 3, etc\. after \[/, () => ['"[" needs a number, a chord or a field after it', 'left out']],
]

/** One of the parser's warnings (which hold HTML) in plain words, with its place in the text that was parsed. */
export function readWarning(warning: string): Omit<Problem, 'severity'> {
  const place = PLACE.exec(warning)
  const marked = plain(MARKED.exec(warning)?.[1] ?? '')
  const text = warning.replace(PLACE, '')
  const explained = EXPLAINED.find(([pattern]) => pattern.test(text))
  const [message, understood] = explained?.[1](marked) ?? [
    plain(text.split(':')[0] ?? text) + (marked ? ` at "${marked}"` : ''),
    'read as far as possible',
  ]
  return {
    line: Number(place?.[1] ?? 1),
    column: Number(place?.[2] ?? 1),
    message,
    understood,
  }
}

function plain(html: string): string {
  return html
    .replace(/<[^>]*>/g, '')
    .replaceAll('&lt;', '<')
    .replaceAll('&gt;', '>')
    .replaceAll('&amp;', '&')
    .trim()
}
