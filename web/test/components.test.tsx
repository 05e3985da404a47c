// @vitest-environment jsdom
import { MantineProvider } from '@mantine/core'
import { chordChange } from '@velvet-porch/core/chords'
import { guitarSetup } from '@velvet-porch/core/instrument'
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react'
import type { ReactNode } from 'react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { bringStages } from '../src/texts/i18n.ts'
import { EffortRibbon } from '../src/features/arrange/EffortRibbon.tsx'
import { FoundList } from '../src/features/arrange/FoundList.tsx'
import { Act, Notice } from '../src/features/arrange/Notice.tsx'
import { Moves } from '../src/features/shapes/Moves.tsx'
import { WaysIn } from '../src/features/shelf/WaysIn.tsx'
import { FormMenu } from '../src/score/edit/FormMenu.tsx'
import { sheetModel } from '../src/score/sheet/sheetModel.ts'
import { stubBrowser } from './browserStubs.ts'
import { arrangementFor, tuneOf } from './support.ts'

const shown = (what: ReactNode) => render(<MantineProvider>{what}</MantineProvider>)
const tune = tuneOf('"C"cdec|"F"f2"G7"d2|"C"edcB|"C"c4|]')

beforeEach(async () => {
  stubBrowser()
  // A popover of the test has no size to be put into.
  vi.spyOn(console, 'warn').mockImplementation(() => undefined)
  await bringStages()
})
afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
  vi.restoreAllMocks()
})

describe('the moves of a change', () => {
  it('are said finger by finger: what stays, what goes where', () => {
    const c = { frets: [0, 1, 0, 2, 3, null], fingers: [0, 1, 0, 2, 3, 0] } as const
    const am = { frets: [0, 1, 2, 2, 0, null], fingers: [0, 1, 3, 2, 0, 0] } as const
    shown(<Moves change={chordChange(guitarSetup(0), c, am)} />)
    const [index, middle, ring] = screen.getAllByRole('listitem').map((li) => li.textContent)
    expect(index).toMatch(/^1 stays/)
    expect(middle).toMatch(/^2 stays/)
    expect(ring).toMatch(/string 5.*fret 3.*string 3.*fret 2/)
  })

  it('say so where there are none', () => {
    const open = { frets: [0, 0, 0, 0, 0, 0], fingers: [0, 0, 0, 0, 0, 0] } as const
    shown(<Moves change={chordChange(guitarSetup(0), open, open)} />)
    expect(screen.queryByRole('list')).toBeNull()
  })
})

describe('effort, measure by measure', () => {
  it('is one line that unfolds to a cell a measure, which leads there', () => {
    const onPosition = vi.fn()
    const doc = arrangementFor(tune)
    shown(
      <EffortRibbon model={sheetModel(tune, doc)} doc={doc} position={undefined} onPosition={onPosition} />,
    )
    expect(screen.queryAllByRole('button', { name: /^Measure \d/ })).toHaveLength(0)
    fireEvent.click(screen.getByRole('button', { name: /^Effort \d/ }))
    const cells = screen.getAllByRole('button', { name: /^Measure \d/ })
    expect(cells).toHaveLength(4)
    fireEvent.click(cells[2]!)
    expect(onPosition).toHaveBeenCalledWith({ measure: 2, tick: 0 })
  })
})

describe('what was found', () => {
  it('leads to its place', () => {
    const onPosition = vi.fn()
    const found = [
      { key: 'a', position: { measure: 1, tick: 0 }, where: 'Measure 2', text: 'a note is left out' },
      { key: 'b', position: { measure: 3, tick: 0 }, text: 'the last one' },
    ]
    shown(<FoundList title="Left out" found={found} testId="found" open onPosition={onPosition} />)
    expect(screen.getByText('Measure 2')).toBeTruthy()
    fireEvent.click(screen.getByRole('button', { name: 'the last one' }))
    expect(onPosition).toHaveBeenCalledExactlyOnceWith({ measure: 3, tick: 0 })
  })
})

describe('a notice', () => {
  it('offers what can be done about it', () => {
    const act = vi.fn()
    shown(
      <Notice text="The tune has changed." testId="notice">
        <Act onClick={act}>Arrange again</Act>
      </Notice>,
    )
    expect(screen.getByTestId('notice').textContent).toContain('The tune has changed.')
    fireEvent.click(screen.getByRole('button', { name: 'Arrange again' }))
    expect(act).toHaveBeenCalledOnce()
  })
})

describe('the ways in', () => {
  const ways = {
    onDemo: vi.fn(),
    onNew: vi.fn(),
    onPaste: vi.fn(),
    onForm: vi.fn(),
    onPlayIn: vi.fn(),
    onOpen: vi.fn(),
  }
  it.each([
    [true, 4],
    [false, 6],
  ])('an empty shelf (%s) offers %s', (empty, count) => {
    shown(<WaysIn read empty={empty} {...ways} />)
    expect(screen.getAllByRole('button')).toHaveLength(count)
    fireEvent.click(screen.getByRole('button', { name: /Paste/ }))
    expect(ways.onPaste).toHaveBeenCalled()
  })
})

describe('the menu of the form', () => {
  const numbers = [1, 2, 3, 4]
  const opened = (from: number, to: number) => {
    const run = vi.fn(() => Promise.resolve(true))
    shown(<FormMenu tune={tune} range={{ from, to }} numbers={numbers} run={run} />)
    fireEvent.click(screen.getByRole('button', { name: /form/i }))
    return run
  }

  it('repeats the marked measures, and names a section where it begins', async () => {
    const run = opened(1, 2)
    const menu = within(await screen.findByTestId('form-menu'))
    expect(menu.getByText('Measures 2–3')).toBeTruthy()
    fireEvent.click(menu.getByRole('button', { name: 'Repeat these', hidden: true }))
    expect(run).toHaveBeenLastCalledWith({ do: 'repeat', from: 1, to: 2, on: true })
    fireEvent.change(menu.getByLabelText('A section begins here'), { target: { value: 'Chorus' } })
    fireEvent.submit(menu.getByLabelText('A section begins here').closest('form')!)
    expect(run).toHaveBeenLastCalledWith({ do: 'section', measure: 1, name: 'Chorus' })
  })

  it('takes no tempo that nobody plays', async () => {
    const run = opened(0, 0)
    const menu = within(await screen.findByTestId('form-menu'))
    const field = menu.getByLabelText('Quarters a minute from here')
    fireEvent.change(field, { target: { value: '9' } })
    fireEvent.submit(field.closest('form')!)
    expect(run).not.toHaveBeenCalled()
    fireEvent.change(field, { target: { value: '90' } })
    fireEvent.submit(field.closest('form')!)
    expect(run).toHaveBeenCalledWith({ do: 'tempo', at: { measure: tune.measures[0]!.id, tick: 0 }, bpm: 90 })
  })
})
