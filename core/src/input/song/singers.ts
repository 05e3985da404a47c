import { partNameIn } from '../../document/partKind.ts'
import { isFactName } from '../headFacts.ts'

/** Who sings where everybody does, in the languages of the app. */
const GROUPS =
  /^(?:all|both|everyone|everybody|together|he|she|him|her|men|women|boys|girls|duet|solo|choir|group|lead|tous|toutes|todos|todas|lahat|sabay)$/i

/** Lines headed by a name from which on every such name is a singer's. */
const MANY = 3

/** Names that head lines of words ("Ada: …"): those that do so twice, words for a group, all where many lines have one. */
export function singersIn(lines: readonly string[]): ReadonlySet<string> {
  const counts = new Map<string, number>()
  for (const line of lines) {
    const name = /^\s*\(?([\p{Lu}][\p{L}\d.&+ ]{0,20}?)\)?:\s+\S/u.exec(line.replace(/\[[^\]]*\]/g, ''))?.[1]
    if (name && !isFactName(name) && !partNameIn(name)) counts.set(name, (counts.get(name) ?? 0) + 1)
  }
  const many = [...counts.values()].reduce((sum, n) => sum + n, 0) >= MANY
  return new Set([...counts].filter(([name, n]) => n > 1 || many || GROUPS.test(name)).map(([name]) => name))
}
