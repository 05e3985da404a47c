// @vitest-environment jsdom
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { keepLessonPlace, lessonPlace } from '../src/state/lessonPlace.ts'

beforeEach(() => localStorage.clear())

describe('where a lesson stands', () => {
  it('is kept for each tune by itself', () => {
    keepLessonPlace('a', { measure: 3, tick: 480, view: 'step' })
    keepLessonPlace('b', { measure: 0, tick: 0, view: 'plan' })
    keepLessonPlace('a', { measure: 4, tick: 0, view: 'script' })
    expect(lessonPlace('a')).toEqual({ measure: 4, tick: 0, view: 'script' })
    expect(lessonPlace('b')).toEqual({ measure: 0, tick: 0, view: 'plan' })
    expect(lessonPlace('c')).toBeUndefined()
  })

  it('is forgotten for the tune that was left longest ago, when there are very many', () => {
    for (let i = 0; i < 250; i++) keepLessonPlace(`t${i}`, { measure: i, tick: 0, view: 'step' })
    expect(lessonPlace('t249')).toBeDefined()
    expect(lessonPlace('t49')).toBeUndefined()
    expect(lessonPlace('t50')).toEqual({ measure: 50, tick: 0, view: 'step' })
  })

  it('is nothing where the browser holds something else, and harms nothing where it keeps nothing', () => {
    for (const kept of ['{', '[]', 'null', '{"a":3}', '{"a":{"measure":"1","tick":0,"view":"step"}}']) {
      localStorage.setItem('velvet-porch.lessons', kept)
      expect(lessonPlace('a')).toBeUndefined()
    }
    const full = vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError')
    })
    expect(() => keepLessonPlace('a', { measure: 1, tick: 0, view: 'step' })).not.toThrow()
    full.mockRestore()
  })
})
