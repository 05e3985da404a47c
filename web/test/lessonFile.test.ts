// @vitest-environment jsdom
import { USUAL_LESSON } from '@velvet-porch/core/lesson'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { stubBrowser } from './browserStubs.ts'
import { arrangementFor, tuneOf } from './support.ts'

const tune = tuneOf('"C"cdec|"F"f2"G7"d2|"C"edcB|"C"c4|]')
const data = { tune, doc: arrangementFor(tune, 1), settings: USUAL_LESSON, notes: {} }
const said = () => document.querySelector('.step')?.textContent ?? ''
const button = (name: string) =>
  [...document.querySelectorAll('button')].find((b) => b.textContent === name) ??
  expect.fail(`there is no button "${name}"`)
const press = (key: string) =>
  dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))

beforeAll(async () => {
  stubBrowser()
  localStorage.clear()
  document.body.innerHTML = '<main id="lesson"></main><script type="application/json" id="data"></script>'
  document.getElementById('data')!.textContent = JSON.stringify(data)
  await import('../src/lessonFile/main.ts')
})
beforeEach(() => {
  for (let i = 0; i < 60; i++) press('ArrowLeft')
})

describe('the program of a lesson file', () => {
  it('opens with the tune, its sheet and its first step', () => {
    expect(document.querySelector('h1')!.textContent).toBe('Gate Latch')
    expect(document.querySelector('svg')).not.toBeNull()
    expect(said()).toContain('Measure 1')
    expect(button('Back').disabled).toBe(true)
  })

  it('goes step by step, by button and by key, and stops at the end', () => {
    const first = said()
    button('Next').click()
    const second = said()
    expect(second).not.toBe(first)
    press('ArrowLeft')
    expect(said()).toBe(first)
    for (let i = 0; i < 60; i++) press('ArrowRight')
    expect(said()).toContain('Measure 4')
    expect(button('Next').disabled).toBe(true)
  })

  it('keys that are typed into a field do not move the lesson', () => {
    const before = said()
    const field = document.querySelector('input')!
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowRight', bubbles: true }))
    expect(said()).toBe(before)
  })

  it('writes the script when it is unfolded; a line leads to its step', () => {
    const all = document.querySelector<HTMLDetailsElement>('details.script')!
    all.open = true
    all.dispatchEvent(new Event('toggle'))
    const lines = all.querySelectorAll<HTMLButtonElement>('.line-of')
    expect(lines.length).toBeGreaterThan(8)
    lines[lines.length - 1]!.click()
    expect(said()).toContain('Measure 4')
  })

  it('practises what is due: rises when it is clean, and writes it into the log by itself', () => {
    const pane = document.querySelector('.practise')!
    const now = () => pane.querySelector('[aria-current="step"]')!.textContent
    const words = () => pane.querySelector('.climb')!.textContent
    expect(pane.querySelector('.today li')!.textContent).toContain('new')
    const first = now()
    press('c')
    expect(words()).toContain('1 of 3 clean ones in a row')
    press('c')
    press('c')
    expect(now()).not.toBe(first)
    press('x')
    expect(words()).toContain('0 of 3')
    button('Not yet').click()
    expect(now()).toBe(first)
    button('Into the log').click()
    const kept = JSON.parse(localStorage.getItem(`velvet-porch.log.${tune.id}`)!) as {
      bpm: number
      clean: number
    }[]
    expect(kept).toHaveLength(1)
    expect(first).toBe(`♩ = ${kept[0]!.bpm}`)
    expect(kept[0]!.clean).toBe(3)
    expect(pane.textContent).toContain('Written down')
    expect(document.querySelectorAll('.entries li')).toHaveLength(1)
    localStorage.clear()
  })

  it('keeps what was practised on this device, within sense', () => {
    const form = document.querySelector<HTMLFormElement>('.log form')!
    document.querySelector<HTMLInputElement>('#log-bpm')!.value = '9999'
    document.querySelector<HTMLInputElement>('#log-note')!.value = 'slowly <b>'
    form.dispatchEvent(new Event('submit', { cancelable: true }))
    const kept = JSON.parse(localStorage.getItem(`velvet-porch.log.${tune.id}`)!) as unknown[]
    expect(kept).toHaveLength(2)
    expect(kept[1]).toMatchObject({ piece: 1, bpm: 500, note: 'slowly <b>' })
    const entry = document.querySelector('.entries li')!
    expect(entry.textContent).toContain('slowly <b>')
    expect(entry.querySelector('b')).toBeNull()
  })
})
