import { describe, expect, it } from 'vitest'
import { refusalOf, styleOn } from '../../../src/arrange/index.ts'
import { STYLES } from '../../../src/document/index.ts'

describe('the style that comes nearest on another instrument', () => {
  it('is the style itself on six strings', () => {
    for (const style of STYLES) expect(styleOn(style, { strings: 6 })).toBe(style)
  })

  it('is one that four strings play, and the style itself where they do', () => {
    for (const style of STYLES) {
      const nearest = styleOn(style, { strings: 4 })
      expect(refusalOf(nearest, 2, { strings: 4 })).toBeUndefined()
      if (refusalOf(style, 2, { strings: 4 }) === undefined) expect(nearest).toBe(style)
      else expect(nearest).not.toBe(style)
    }
  })
})
