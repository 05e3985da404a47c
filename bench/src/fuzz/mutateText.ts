import { oneOf, wholeBelow, type Chance } from '../../../e2e/chance.ts'

/** Characters that texts from mails, word processors and other programs bring along. */
const STRANGE = [
  '\u0000',
  '\u00a0',
  '“',
  '”',
  '’',
  '–',
  '\t',
  '\r',
  '\ufeff',
  '𝄞',
  '&amp;',
  '\n\n',
  '%',
  '\\',
  '"',
]

const NUMBERS = [
  '0',
  '1',
  '7',
  '64',
  '99',
  '200',
  '65536',
  '99999999',
  '-1',
  '1/0',
  '0/4',
  '64/64',
  '32/4',
  '3.5',
]

/** A text changed in one to four places: cut, doubled, moved, crossed with another, or with a word of its format put in. */
export function mutateText(
  text: string,
  others: readonly string[],
  words: readonly string[],
  chance: Chance,
): string {
  let out = text
  for (let i = 1 + wholeBelow(chance, 4); i > 0; i--) out = once(out, others, words, chance)
  return out.slice(0, 20_000)
}

function once(text: string, others: readonly string[], words: readonly string[], chance: Chance): string {
  const at = wholeBelow(chance, text.length + 1)
  const length = 1 + wholeBelow(chance, chance() < 0.7 ? 4 : 40)
  const put = (what: string) => text.slice(0, at) + what + text.slice(at)
  switch (wholeBelow(chance, 12)) {
    case 0:
      return text.slice(0, at) + text.slice(at + length)
    case 1:
      return put(text.slice(at, at + length))
    case 2:
      return put(text.slice(at, at + length).repeat(2 + wholeBelow(chance, 60)))
    case 3:
    case 4:
      return put(oneOf(chance, words))
    case 5:
      return put(oneOf(chance, STRANGE))
    case 6:
      return text.replace(/\d+/g, (n) => (chance() < 0.1 ? oneOf(chance, NUMBERS) : n))
    case 7: {
      const lines = text.split('\n')
      const from = wholeBelow(chance, lines.length)
      const [line = ''] = lines.splice(from, 1)
      if (chance() < 0.5) lines.splice(wholeBelow(chance, lines.length + 1), 0, line)
      return lines.join('\n')
    }
    case 8: {
      const other = oneOf(chance, others)
      return text.slice(0, at) + other.slice(wholeBelow(chance, other.length + 1))
    }
    case 9: {
      const code = 33 + wholeBelow(chance, 94)
      return text.slice(0, at) + String.fromCharCode(code) + text.slice(at + 1)
    }
    case 10:
      return put(oneOf(chance, NUMBERS))
    default:
      return text.slice(0, at)
  }
}
