// @vitest-environment jsdom
import { MantineProvider } from '@mantine/core'
import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { lineBars } from '@velvet-porch/core/document'
import { STANDARD_TUNING } from '@velvet-porch/core/instrument'
import { readAny } from '@velvet-porch/core/input/any'
import { DEFAULT_PLAYER } from '@velvet-porch/core/instrument'
import { chordText } from '@velvet-porch/core/music'
import type { ReactNode } from 'react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { withCapo } from '../src/features/arrange/capoKeeps.ts'
import { UnderstoodTune } from '../src/features/shelf/UnderstoodTune.tsx'
import { LineRow } from '../src/features/tune/song/LineRow.tsx'
import { TapChanges } from '../src/features/tune/song/TapChanges.tsx'
import { bringStages } from '../src/texts/i18n.ts'
import { stubBrowser } from './browserStubs.ts'

const shown = (what: ReactNode) => render(<MantineProvider>{what}</MantineProvider>)

const read = (text: string) =>
  readAny(text, { newId: () => 't', player: DEFAULT_PLAYER, title: 'New' }).tunes[0]!
const song = read('Weir Song\nCapo 2\n\nG      Gqx    D7   G\nOver the weir and over the wall\n')
const tab = read('Capo 2\n\n  C\ne|-0-----|\nB|---1---|\nG|-----0-|\nD|-2-----|\nA|-3-----|\nE|-------|\n')

beforeEach(async () => {
  stubBrowser()
  vi.spyOn(console, 'warn').mockImplementation(() => undefined)
  await bringStages()
})
afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
  vi.restoreAllMocks()
})

describe('one tune of a text, before it is taken', () => {
  it('says what it is, what is doubtful first, and asks what the names beside a capo mean', () => {
    const onChoose = vi.fn()
    shown(
      <UnderstoodTune
        understood={song}
        file="weir.txt"
        taken
        chosen={{}}
        onTake={undefined}
        onChoose={onChoose}
      />,
    )
    expect(screen.getByText('Weir Song')).toBeTruthy()
    expect(
      screen.getByText(/^weir\.txt · 4 measures · 4 chords · 1 line of words · A major · 4\/4 · capo 2$/),
    ).toBeTruthy()
    expect(screen.getAllByRole('listitem')[0]!.textContent).toContain('“Gqx” is no chord that is understood')
    fireEvent.click(screen.getByRole('radio', { name: 'The sound: G sounds, the hand holds F' }))
    expect(onChoose).toHaveBeenCalledWith({ song: { meaning: 'sound' } })
    fireEvent.change(screen.getByLabelText('Bars a line'), { target: { value: '2' } })
    expect(onChoose).toHaveBeenCalledWith({ song: { bars: 2 } })
  })

  it('asks the same of a tab, whose notes say what is likelier; of bars it asks nothing', () => {
    shown(
      <UnderstoodTune
        understood={tab}
        file={undefined}
        taken
        chosen={{}}
        onTake={undefined}
        onChoose={vi.fn()}
      />,
    )
    const shapes = screen.getByRole<HTMLInputElement>('radio', {
      name: 'The shape: the hand holds C, D sounds',
    })
    expect(shapes.checked).toBe(true)
    expect(screen.queryByLabelText('Bars a line')).toBeNull()
  })

  it('is left where its mark is taken off', () => {
    const onTake = vi.fn()
    shown(
      <UnderstoodTune
        understood={song}
        file={undefined}
        taken
        chosen={{}}
        onTake={onTake}
        onChoose={vi.fn()}
      />,
    )
    fireEvent.click(screen.getByRole('checkbox', { name: 'Take “Weir Song”' }))
    expect(onTake).toHaveBeenCalledOnce()
  })
})

describe('the bars of a line', () => {
  const line = lineBars(song.tune!)[0]!
  const name = (c: (typeof line.changes)[number]['chord']) => (c.parsed ? chordText(c.parsed) : c.symbol)

  it('are numbered, its chords stand on beats and go to the next by key', () => {
    const run = vi.fn().mockResolvedValue(true)
    shown(<LineRow line={line} name={name} tempo={100} run={run} />)
    fireEvent.keyDown(screen.getByRole('button', { name: 'A: bar 1, beat 1' }), { key: 'ArrowRight' })
    expect(run).toHaveBeenCalledWith({
      do: 'moveChange',
      line: line.line.id,
      chord: line.changes[0]!.chord.id,
      bar: 0,
      share: 0.25,
    })
    // There is no beat before the first.
    fireEvent.keyDown(screen.getByRole('button', { name: 'A: bar 1, beat 1' }), { key: 'ArrowLeft' })
    expect(run).toHaveBeenCalledOnce()
    fireEvent.change(screen.getByLabelText('Bars of “Over the weir and over the wall”'), {
      target: { value: '2' },
    })
    expect(run).toHaveBeenLastCalledWith({ do: 'lineBars', line: line.line.id, bars: 2 })
  })

  it('are tapped: a tap a chord and one for the end, set on beats', async () => {
    const run = vi.fn().mockResolvedValue(true)
    shown(<TapChanges line={line} name={name} tempo={60} run={run} />)
    fireEvent.click(screen.getByRole('button', { name: /^Tap the changes/ }))
    const write = await screen.findByText('Write it')
    // Seconds at 60 beats a minute, from the first tap on: chords on beats 1, 3, 5 and 7, the end after 8.
    for (const [i, at] of [1, 3.05, 4.96, 7.1, 9].entries()) {
      const wanted = i < 4 ? name(line.changes[i]!.chord) : 'End of the line'
      const pad = screen.getByText(wanted)
      const tap = new MouseEvent('pointerdown', { bubbles: true })
      Object.defineProperty(tap, 'timeStamp', { value: at * 1000 })
      fireEvent(pad, tap)
    }
    fireEvent.click(write)
    expect(run).toHaveBeenCalledWith({
      do: 'lineTimes',
      line: line.line.id,
      bars: 2,
      changes: [
        { bar: 0, share: 0 },
        { bar: 0, share: 0.5 },
        { bar: 1, share: 0 },
        { bar: 1, share: 0.5 },
      ],
    })
  })
})

describe('a capo at another fret', () => {
  const settings = { regions: [], instrument: 'guitar', tuning: STANDARD_TUNING, capo: 2, locks: [] } as const

  it('moves what sounds where the shapes stay, and the shapes where the sound stays', () => {
    expect(withCapo(settings, 5, 'shapes')).toEqual({ capo: 5, shift: 3 })
    expect(withCapo({ ...settings, shift: 3 }, 0, 'shapes')).toEqual({ capo: 0, shift: 1 })
    expect(withCapo(settings, 5, 'sound')).toEqual({ capo: 5, locks: [] })
  })
})
