import { describe, expect, it } from 'vitest'
import { DEFAULT_PLAYER, PICKING_SCHOOLS } from '../../src/instrument/index.ts'
import { readPlayer, SchemaError } from '../../src/schema/index.ts'

describe('a hand as stored', () => {
  it('reads back as written, in every school', () => {
    for (const school of PICKING_SCHOOLS) {
      const player = { ...DEFAULT_PLAYER, name: 'A student', school, handedness: 'left' as const }
      expect(readPlayer(JSON.parse(JSON.stringify(player)))).toEqual(player)
    }
  })

  it.each([
    ['a hand of 0 mm', { ...DEFAULT_PLAYER, spans: { ...DEFAULT_PLAYER.spans, '14': 0 } }, 'spans.14'],
    ['a hand of a metre', { ...DEFAULT_PLAYER, spans: { ...DEFAULT_PLAYER.spans, '12': 1000 } }, 'spans.12'],
    ['an unknown school', { ...DEFAULT_PLAYER, school: 'teeth' }, 'school'],
    ['no techniques', { ...DEFAULT_PLAYER, techniques: undefined }, 'techniques'],
    ['nothing', undefined, ''],
  ])('refuses %s and says where', (_, value, where) => {
    let fault: unknown
    try {
      readPlayer(value)
    } catch (error) {
      fault = error
    }
    expect(fault).toBeInstanceOf(SchemaError)
    expect((fault as SchemaError).where).toBe(where)
  })
})
