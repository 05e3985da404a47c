import { message, type Message } from '../../messages/message.ts'
import type { Problem } from '../problem.ts'

const PLACE = /^(?:Music Line|Line)?:?\s*(\d+):(\d+):\s*/
const MARKED = /<span[^>]*>([\s\S]*?)<\/span>/

const EXPLAINED: readonly (readonly [RegExp, (marked: string) => Message<'reading'>])[] = [
  [/Unknown character ignored/, (sign) => message('reading.strayCharacter', { sign })],
  [/Can't nest triplets/, () => message('reading.nestedTuplet')],
  [/Unknown bar (symbol|type)/, (sign) => message('reading.badBarLine', { sign })],
  [/Unknown decoration/, (sign) => message('reading.unknownOrnament', { sign })],
  [/Expected 1, 2, 3, etc\. after \[/, () => message('reading.strayBracket')],
]

/** Notes of five eighths and the like have no sign of their own; they are read, and written as tied notes. */
export const isOfSigns = (warning: string): boolean => warning.includes('Duration not representable')

/** What one of the parser's warnings (which hold HTML) means, with its place in the text that was parsed. */
export function readWarning(warning: string): Omit<Problem, 'severity'> {
  const place = PLACE.exec(warning)
  const marked = plain(MARKED.exec(warning)?.[1] ?? '')
  const text = warning.replace(PLACE, '')
  const explained = EXPLAINED.find(([pattern]) => pattern.test(text))
  return {
    line: Number(place?.[1] ?? 1),
    column: Number(place?.[2] ?? 1),
    says:
      explained?.[1](marked) ??
      message('reading.otherWarning', {
        text: plain(text.split(':')[0] ?? text) + (marked ? ` at "${marked}"` : ''),
      }),
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
