import { describe, expect, it } from 'vitest'
import { touchMarks } from '../../../src/input/text/touchMarks.ts'

describe('how strings are touched, over a tab', () => {
  it.each([
    ['  PM----|  let ring---|', ['palm 2-9', 'letRing 11-23']],
    ['P.M. - - - |', ['palm 0-12']],
    ['let ring', ['letRing 0-Infinity']],
    ['let ring    PM---', ['letRing 0-12', 'palm 12-17']],
    ['palm mute~~~~|', ['palm 0-14']],
    ['She said: let it ring', []],
  ])('%s', (line, wanted) => {
    expect(touchMarks([line]).map((m) => `${m.touch} ${m.from}-${m.to}`)).toEqual(wanted)
  })
})
