import { Button, Group, Popover, SegmentedControl, Stack, Text, TextInput } from '@mantine/core'
import { IconWaveSine } from '@tabler/icons-react'
import { isCompound, type Metre } from '@velvet-porch/core/music'
import type { Setup } from '@velvet-porch/core/instrument'
import type { Level, PatternText } from '@velvet-porch/core/document'
import { heldShapesFor } from '@velvet-porch/core/chords'
import {
  nameOfPattern,
  patternProblemMessage,
  readPattern,
  samePattern,
  spokenPattern,
  stepsOf,
  usualPattern,
  writePattern,
  type HarmonySegment,
  type Pattern,
  type PatternStyle,
} from '@velvet-porch/core/arrange'
import type { OwnPattern } from '@velvet-porch/core/schema'
import { useEffect, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { holds } from '../../../ui/holds.ts'
import { useNames } from '../../../ui/names/useNames.ts'
import { useOwnPatterns } from '../../../state/patterns.ts'
import { KeepPattern } from './OwnPatterns.tsx'
import { PatternGrid } from './PatternGrid.tsx'
import { PatternLibrary } from './PatternLibrary.tsx'
import { StrumWords } from './StrumWords.tsx'
import { say } from '../../../texts/say.ts'

interface Props {
  readonly style: PatternStyle
  readonly level: Level
  /** Metre of the section's first full measure. */
  readonly metre: Metre
  /** Absent: the usual pattern. */
  readonly pattern: PatternText | undefined
  /** The first chord that is accompanied, and what it is played on: the pattern is said on it. */
  readonly chord: HarmonySegment | undefined
  readonly setup: Setup | undefined
  readonly onPattern: (pattern: PatternText | undefined, label: string) => void
}

/** The pattern of an accompanied section: chosen from the library, laid on the grid, written, or said in words. */
export function PatternTools({ style, level, metre, pattern, chord, setup, onPattern }: Props) {
  const { t } = useTranslation()
  const own = useOwnPatterns()
  const nameText = usePatternName(own)
  const strings = setup?.instrument.strings
  const current = pattern ?? usualPattern(style, level, metre, strings)
  const [opened, setOpened] = useState(false)
  const [draft, setDraft] = useState(current)
  useEffect(() => {
    if (opened) setDraft(pattern ?? usualPattern(style, level, metre, strings))
  }, [opened, pattern, style, level, metre, strings])
  const reading = readPattern(draft)
  const use = () => {
    setOpened(false)
    onPattern(draft, t('pattern.command', { name: nameText(draft) }))
  }
  return (
    <Popover
      width="min(560px, 94vw)"
      position="bottom-start"
      shadow="md"
      withinPortal
      trapFocus
      styles={{ dropdown: { maxHeight: '82dvh', overflowY: 'auto' } }}
      opened={opened}
      onChange={setOpened}
    >
      <Popover.Target>
        <Button
          size="compact-xs"
          h={28}
          variant="default"
          leftSection={<IconWaveSine size={16} />}
          {...holds([t('pattern.perBeat'), t('pattern.text'), t('pattern.use')])}
          onClick={() => setOpened((o) => !o)}
        >
          {t('pattern.button', { name: nameText(current) })}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <Stack gap={8}>
          <Text size="sm" fw={600}>
            {t('pattern.title')}
          </Text>
          <PatternLibrary style={style} metre={metre} draft={draft} own={own} onChoose={setDraft} />
          <Group gap={8}>
            <Text size="xs">{t('pattern.perBeat')}</Text>
            <SegmentedControl
              size="xs"
              aria-label={t('pattern.perBeat')}
              value={String(draft.perBeat)}
              onChange={(v) => setDraft(regridded(draft, Number(v)))}
              data={(isCompound(metre) ? ['3', '6'] : ['1', '2', '3', '4']).map((v) => v)}
            />
          </Group>
          {reading.ok ? (
            <PatternGrid pattern={reading.pattern} onChange={(p) => setDraft(writePattern(p))} />
          ) : null}
          <TextInput
            size="xs"
            label={t('pattern.text')}
            description={t('pattern.textHint')}
            value={draft.text}
            error={reading.ok ? undefined : say(t, patternProblemMessage(reading.problem))}
            classNames={{ input: 'pattern-text' }}
            onChange={(e) => setDraft({ ...draft, text: e.currentTarget.value })}
          />
          {reading.ok && setup && chord ? (
            <Spoken pattern={reading.pattern} setup={setup} chord={chord} />
          ) : null}
          {style === 'strum' ? (
            <StrumWords
              metre={{ num: metre.num, den: metre.den }}
              perBeat={draft.perBeat}
              onPlaced={setDraft}
            />
          ) : null}
          <KeepPattern
            style={style}
            pattern={reading.ok && !nameOfPattern(draft) ? writePattern(reading.pattern) : undefined}
            known={own}
          />
          <Group gap={6} justify="flex-end">
            {pattern ? (
              <Button
                size="xs"
                variant="subtle"
                onClick={() => {
                  setOpened(false)
                  const usual = usualPattern(style, level, metre, strings)
                  onPattern(undefined, t('pattern.command', { name: nameText(usual) }))
                }}
              >
                {t('pattern.usual')}
              </Button>
            ) : null}
            <Button size="xs" disabled={!reading.ok} onClick={use}>
              {t('pattern.use')}
            </Button>
          </Group>
        </Stack>
      </Popover.Dropdown>
    </Popover>
  )
}

/** The pattern as a teacher says it: string numbers on the first chord's shape. */
function Spoken({
  pattern,
  setup,
  chord: { shape, sounding },
}: {
  pattern: Pattern
  setup: Setup
  chord: HarmonySegment
}) {
  const { t } = useTranslation()
  const names = useNames()
  const frame = shape && heldShapesFor(shape, setup)[0]
  if (!frame || !sounding) return null
  const said = spokenPattern(setup, { frets: frame.frets, chord: sounding }, pattern.steps).map(
    ({ strings, swept }) => {
      const list = strings.join(' ')
      return swept ? t('pattern.brushed', { strings: list }) : strings.join(t('pattern.with'))
    },
  )
  return (
    <Text size="xs" data-testid="spoken-pattern">
      {t('pattern.said', { chord: names.chord(shape), strings: said.join(', ') })}
    </Text>
  )
}

/** The same pattern on a finer or coarser grid: what falls between the new steps is left out. */
function regridded(source: PatternText, perBeat: number): PatternText {
  const read = readPattern(source)
  const metre = source.metre
  const size = stepsOf(metre, perBeat)
  if (!read.ok) return { metre, perBeat, text: Array.from({ length: size }, () => '.').join(' ') }
  const measures = Math.round(read.pattern.steps.length / stepsOf(metre, source.perBeat))
  const steps = Array.from({ length: size * measures }, (_, i) => {
    const at = (i * source.perBeat) / perBeat
    return Number.isInteger(at) ? read.pattern.steps[at] : undefined
  })
  return writePattern({ metre, perBeat, steps })
}

/** What a pattern is called: its name in the library, the name that the teacher gave it, or none. */
function usePatternName(own: readonly OwnPattern[]): (pattern: PatternText) => string {
  const { t } = useTranslation()
  return (pattern) => {
    const id = nameOfPattern(pattern)
    if (id) return t(`pattern.names.${id as 'loom'}`)
    return own.find((p) => samePattern(p, pattern))?.name ?? t('pattern.own')
  }
}
