/** More characters than this make paths that some systems refuse. */
const LONGEST = 80

/**
 * A title as the name of a file that is not there yet, also where large and small letters count as one; the name is taken.
 * @param ending with its dot, or nothing
 * @example freeFileName('Rain / Sun', taken, '.abc') // 'Rain - Sun.abc', the next 'Rain - Sun 2.abc'
 */
export function freeFileName(title: string, taken: Set<string>, ending = ''): string {
  const plain = [...title.replace(/[\\/:*?"<>|\p{Cc}]+/gu, '-')].slice(0, LONGEST).join('').trim() || 'tune'
  let name = plain + ending
  for (let n = 2; taken.has(name.toLowerCase()); n++) name = `${plain} ${n}${ending}`
  taken.add(name.toLowerCase())
  return name
}
