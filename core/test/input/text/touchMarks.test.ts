import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ticksAt, timelineOf, type TabNote } from '../../../src/document/index.ts'
import { scoreOfText, textOf } from '../../support/tabText.ts'
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

describe('what is damped or rings on', () => {
  const score = scoreOfText(
    'e|-----0-----0---|-3-------0-----|\nB|---1-----1-----|---1---1-------|\nG|-0-----0-------|-0-------------|\n' +
      'D|---------------|---------------|\nA|-3-------3---2-|---------------|\nE|---------------|-3-----------3-|\n',
  )
  const { tune, arrangement } = score
  const { base } = arrangement
  const timeline = timelineOf(tune.measures)
  const moments = [...new Set(base.notes.map((n) => ticksAt(timeline, n.pos)))].sort((a, b) => a - b)

  it('is printed over the strings and read back the same', () => {
    const touch = fc.constantFrom('palmMute', 'letRing', undefined)
    fc.assert(
      fc.property(fc.array(touch, { minLength: moments.length, maxLength: moments.length }), (touches) => {
        const notes = base.notes.map((n): TabNote => {
          const own = touches[moments.indexOf(ticksAt(timeline, n.pos))]
          return own ? { ...n, [own]: true } : n
        })
        const text = textOf({ tune, arrangement: { ...arrangement, base: { ...base, notes } } })
        const again = scoreOfText(text)
        const said = (list: readonly TabNote[]) =>
          list
            .map(
              (n) =>
                `${ticksAt(timeline, n.pos)} ${n.place.string}.${n.place.fret} ${n.palmMute} ${n.letRing}`,
            )
            .sort()
        expect(said(again.arrangement.base.notes), text).toEqual(said(notes))
      }),
      // Damped for so long that the line is mostly dashes.
      { numRuns: 60, examples: [[moments.map((_, i) => (i < 2 ? undefined : ('palmMute' as const)))]] },
    )
  })
})
