import { withoutEntities, withoutMailMarks } from '../foundText.ts'
import { isString, plainTabText } from './tabLines.ts'

/** Tags of web pages; harmonics are digits between such brackets, and stay. */
const TAGS = /<\/?(?:br|pre|p|div|span|html|body|code|font|tt|b|i|em|strong|blockquote)(?:\s[^<>]*)?\/?>/gi

/** A text tab made plain, with the number of each of its lines in the text. */
export interface FoundTab {
  readonly text: string
  readonly numbers: readonly number[]
}

interface NumberedLine {
  readonly text: string
  readonly line: number
}

/** Where an empty line stands between all strings, those empty lines are left out. */
function singleSpaced(lines: readonly NumberedLine[]): readonly NumberedLine[] {
  const strings = lines.flatMap((l, i) => (isString(l.text) ? [i] : []))
  const beside = strings.some((at, i) => i > 0 && at - strings[i - 1]! === 1)
  if (beside || strings.length < 4) return lines
  const isBlank = (l: NumberedLine | undefined) => l !== undefined && l.text.trim() === ''
  return lines.filter((l, i) => {
    const between = isBlank(l) && isString(lines[i - 1]?.text ?? '') && isString(lines[i + 1]?.text ?? '')
    return !between
  })
}

const LABEL = /^\s*[A-Ga-g][#b]?\s{0,2}[|:[]/

/** The rest of a string that a mail broke off: frets, dashes and bars, and no name before them. */
const isRest = (text: string): boolean =>
  text.trim() !== '' &&
  !LABEL.test(text) &&
  /^[-|0-9hpbrxX/\\~().:<>^s* ]+$/.test(text.trim()) &&
  /[-|]/.test(text)

/** Strings that were broken off at the end of a line, each with its rest on the next one, made whole. */
function unwrapped(lines: readonly NumberedLine[]): readonly NumberedLine[] {
  const out: NumberedLine[] = []
  for (let i = 0; i < lines.length;) {
    let pairs = 0
    const whole = (k: number) =>
      LABEL.test(lines[k]?.text ?? '') && isString(lines[k]!.text) && isRest(lines[k + 1]?.text ?? '')
    while (whole(i + 2 * pairs)) pairs++
    // Four strings at least, and each of them broken.
    if (pairs < 4 || LABEL.test(lines[i + 2 * pairs]?.text ?? '')) {
      out.push(lines[i]!)
      i++
      continue
    }
    for (let p = 0; p < pairs; p++) {
      const { text, line } = lines[i + 2 * p]!
      out.push({ text: text.trimEnd() + lines[i + 2 * p + 1]!.text.trim(), line })
    }
    i += 2 * pairs
  }
  return out
}

/**
 * A text tab as it is found in mails and on web pages made plain: entities, tags and marks of quoted mail taken off, strings
 * that were broken off joined, empty lines between the strings left out.
 */
export function tabAsFound(text: string): FoundTab {
  const tagged = /<(?:br|pre|\/)/i.test(text) ? text.replace(TAGS, '') : text
  const plain = withoutMailMarks(plainTabText(withoutEntities(tagged)).split('\n'))
  const lines = unwrapped(singleSpaced(plain.map((l, i) => ({ text: l, line: i + 1 }))))
  return { text: lines.map((l) => l.text).join('\n'), numbers: lines.map((l) => l.line) }
}
