import { present } from '../../invariant.ts'
/** The parts of a chord's quality, as the symbol names them. Numbers are semitones above the root. */
export interface QualityParts {
  readonly third: 3 | 4 | 'sus2' | 'sus4' | 'none'
  readonly fifth: 6 | 7 | 8 | 'none'
  readonly sixth: boolean
  /** 9 diminished, 10 minor, 11 major. */
  readonly seventh?: 9 | 10 | 11
  /** Tensions: 13–15 ninths, 17–18 elevenths, 20–21 thirteenths. */
  readonly tensions: readonly number[]
  /** The altered dominant: fifth and ninth raised or lowered at will. */
  readonly altered: boolean
}

interface Draft {
  third: QualityParts['third']
  fifth: QualityParts['fifth']
  sixth: boolean
  seventh?: 9 | 10 | 11
  tensions: number[]
  altered: boolean
}

/** Tensions by how they are written. */
const TENSIONS: Readonly<Record<string, number>> = {
  b9: 13,
  '9': 14,
  '#9': 15,
  '11': 17,
  '#11': 18,
  b13: 20,
  '13': 21,
  b6: 20,
}

const MAJOR = /^(?:major|maj|Maj|MAJ|MA|Ma|ma(?!dd)|M|∆|j)/
const MINOR = /^(?:minor|min|Min|MIN|mi|Mi|m|-(?!5))/
const HALF = /^(?:ø|halfdim)/
const DIM = /^(?:diminished|dim|°|o(?!m))/
const AUG = /^(?:augmented|aug|\+(?!5|9|11))/

/**
 * Reads what follows the root of a chord symbol. Many spellings lead to the same parts.
 * @returns undefined when the text is not understood as a whole
 * @example readQuality('-7b5') // minor third, diminished fifth, minor seventh
 */
export function readQuality(text: string): QualityParts | undefined {
  let rest = text.replaceAll(/[(),\s]/g, '').replaceAll('omit', 'no')
  const take = (pattern: RegExp): string | undefined => {
    const match = pattern.exec(rest)
    if (!match) return undefined
    rest = rest.slice(match[0].length)
    return match[0]
  }
  const draft: Draft = { third: 4, fifth: 7, sixth: false, tensions: [], altered: false }
  let majorSeventh = false
  let dim = false
  take(/^dom(?:inant)?/)
  const major = take(MAJOR)
  if (major) {
    majorSeventh = true
    if (major === '∆') draft.seventh = 11
  } else if (take(MINOR)) {
    draft.third = 3
    const inner = take(MAJOR)
    if (inner) {
      majorSeventh = true
      draft.seventh = 11
    }
  } else if (take(HALF)) {
    Object.assign(draft, { third: 3, fifth: 6, seventh: 10 })
  } else if (take(DIM)) {
    dim = true
    Object.assign(draft, { third: 3, fifth: 6 })
  } else if (take(AUG)) draft.fifth = 8
  readNumber(draft, take(/^(?:6\/9|69|6|7|9|11|13|5(?!th)|2|4|power)/), majorSeventh, dim)
  while (rest !== '') if (!readModifier(draft, take)) return undefined
  // A sixth beside a seventh is a thirteenth.
  if (draft.sixth && draft.seventh !== undefined) {
    draft.sixth = false
    draft.tensions.push(21)
  }
  draft.tensions = [...new Set(draft.tensions)].sort((a, b) => a - b)
  const dominant = draft.third === 4 && draft.seventh === 10 && draft.fifth === 'none'
  if (draft.altered && !(dominant && draft.tensions.every((t) => t === 14))) return undefined
  return draft.altered ? { ...draft, tensions: [] } : draft
}

function readNumber(draft: Draft, number: string | undefined, majorSeventh: boolean, dim: boolean): void {
  if (number === undefined) return
  if (number === '5' || number === 'power') draft.third = 'none'
  else if (number === '2') draft.third = 'sus2'
  else if (number === '4') draft.third = 'sus4'
  else if (number[0] === '6') {
    draft.sixth = true
    if (number.length > 1) draft.tensions.push(14)
  } else {
    draft.seventh = majorSeventh ? 11 : dim ? 9 : 10
    if (number === '9') draft.tensions.push(14)
    if (number === '11') draft.tensions.push(14, 17)
    if (number === '13') draft.tensions.push(14, 21)
    // A plain eleventh chord leaves out the major third, which would grate against the eleventh.
    if (number === '11' && draft.third === 4 && !majorSeventh) draft.third = 'none'
  }
}

function readModifier(draft: Draft, take: (pattern: RegExp) => string | undefined): boolean {
  const sus = take(/^sus(?:2|4)?/)
  if (sus) {
    draft.third = sus === 'sus2' ? 'sus2' : 'sus4'
    return true
  }
  if (take(/^alt(?:ered)?/)) {
    Object.assign(draft, { altered: true, seventh: 10, fifth: 'none' })
    return true
  }
  const gone = take(/^no(?:3rd|5th|3|5)/)
  if (gone) {
    if (gone.includes('3')) draft.third = 'none'
    else draft.fifth = 'none'
    return true
  }
  const added = take(/^add(?:b9|#9|#11|b13|b6|9|11|13|2|4|6)/)?.slice(3)
  if (added) {
    if (added === '6') draft.sixth = true
    else draft.tensions.push(TENSIONS[added === '2' ? '9' : added === '4' ? '11' : added]!)
    return true
  }
  if (take(/^(?:maj|M|∆|ma)7?/)) {
    draft.seventh = 11
    return true
  }
  const altered = take(/^(?:b|#|-|\+)(?:5|9|11|13|6)/)
  if (altered) {
    const sign = altered.startsWith('b') || altered.startsWith('-') ? 'b' : '#'
    const degree = altered.slice(1)
    if (degree === '5') draft.fifth = sign === 'b' ? 6 : 8
    else {
      const tension = TENSIONS[sign + degree]
      if (tension === undefined) return false
      if (degree === '9') draft.tensions = draft.tensions.filter((t) => t !== 14)
      draft.tensions.push(tension)
    }
    return true
  }
  if (take(/^\+/)) {
    draft.fifth = 8
    return true
  }
  return false
}

/** The tones in semitones above the root, from the root up. */
export function qualityIntervals(parts: QualityParts): number[] {
  const intervals = [0]
  if (typeof parts.third === 'number') intervals.push(parts.third)
  if (parts.third === 'sus2') intervals.push(2)
  if (parts.third === 'sus4') intervals.push(5)
  if (parts.fifth !== 'none') intervals.push(parts.fifth)
  if (parts.sixth) intervals.push(9)
  if (parts.seventh !== undefined) intervals.push(parts.seventh)
  intervals.push(...parts.tensions)
  if (parts.altered) intervals.push(13, 15, 18, 20)
  return intervals.sort((a, b) => a - b)
}

/** One spelling for each quality; what it writes reads back to the same parts. */
export function qualityText(parts: QualityParts): string {
  const tensions = new Set(parts.tensions)
  const has = (t: number) => tensions.delete(t)
  const { seventh, third, fifth } = parts
  const eleventh = third === 'none' && seventh === 10 && tensions.has(14) && tensions.has(17)
  let number = ''
  if (seventh !== undefined) {
    number = '7'
    if (tensions.has(21) && tensions.has(14)) {
      has(21)
      has(14)
      number = '13'
    } else if (tensions.has(14) && tensions.has(17) && (eleventh || third === 3 || seventh === 11)) {
      has(14)
      has(17)
      number = '11'
    } else if (has(14)) number = '9'
  } else if (parts.sixth) number = has(14) ? '69' : '6'
  const major = seventh === 11
  const dim = third === 3 && fifth === 6 && (seventh === undefined || seventh === 9) && !parts.sixth
  const aug = third === 4 && fifth === 8 && !major
  let text = ''
  if (dim) text = 'dim' + (seventh === 9 ? number : '')
  else if (aug) text = 'aug' + number
  else {
    if (third === 3) text = 'm'
    if (major) text += third === 3 ? 'Maj' : 'maj'
    text += number
    if (third === 'none' && !eleventh && number === '' && fifth !== 'none') text += '5'
    if (third === 'sus2') text += 'sus2'
    if (third === 'sus4') text += 'sus4'
    if (parts.altered) text += 'alt'
    // After a bare root the sign would be taken for the root's own.
    else if (fifth === 6) text += text === '' ? '(b5)' : 'b5'
    else if (fifth === 8) text += text === '' ? '(#5)' : '#5'
  }
  for (const t of [...tensions].sort((a, b) => a - b)) text += tensionText(t, number)
  if (third === 'none' && !eleventh && !text.startsWith('5')) text += 'no3'
  if (fifth === 'none' && !parts.altered) text += 'no5'
  return text
}

function tensionText(tension: number, number: string): string {
  if (tension === 14) return 'add9'
  if (tension === 17) return 'add11'
  if (tension === 21) return 'add13'
  const written = present(Object.entries(TENSIONS).find(([, t]) => t === tension))[0]
  return number === '' || number.startsWith('6') ? 'add' + written : written
}
