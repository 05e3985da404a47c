import {
  ActionIcon,
  Button,
  Group,
  Popover,
  ScrollArea,
  SegmentedControl,
  Tooltip,
  UnstyledButton,
  VisuallyHidden,
} from '@mantine/core'
import { IconAdjustments, IconArrowMerge } from '@tabler/icons-react'
import type { Metre } from '@velvet-porch/core/music'
import { INSTRUMENTS, type Setup } from '@velvet-porch/core/instrument'
import {
  canSwing,
  joinRegion,
  LEVELS,
  regionAt,
  ACCOMPANIMENTS,
  isAccompaniment,
  isSolo,
  OTHER_TUNE_STYLES,
  SOLO_STYLES,
  STYLES,
  tidyRegions,
  ornamentOf,
  USUAL_SCHOOL,
  withChoice,
  type Level,
  type Region,
  type School,
  type Style,
  type TuneDoc,
} from '@velvet-porch/core/document'
import { refusalOf, type HarmonySegment } from '@velvet-porch/core/arrange'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { SheetPosition } from '../../score/sheet/sheetModel.ts'
import { holds } from '../../ui/holds.ts'
import { PatternTools } from './pattern/PatternTools.tsx'
import { FeelForm } from './FeelForm.tsx'
import type { SettingsChange } from './arranger.ts'
import { useBenchPage } from './bench/BenchContext.ts'
import { LookSelect } from '../../ui/LookSelect.tsx'
import { noteHabits } from './taste/noteTaken.ts'
import { OrnamentMenu } from './OrnamentMenu.tsx'
import { PartsMenu } from './PartsMenu.tsx'
import { SchoolForm } from './SchoolForm.tsx'
import type { Settings } from './settings.ts'
import type { BenchArranger } from './useArranger.ts'
import css from './Sections.module.css'
import arrangeCss from './arrange.module.css'

interface Props {
  readonly tune: TuneDoc
  readonly numbers: readonly number[]
  readonly arranger: BenchArranger
  readonly settings: Settings
  readonly position: SheetPosition | undefined
  readonly section: Active
}

/** The section that the choices are for: the picked one, else the one under the selected note. */
export function useActiveSection(
  tune: TuneDoc,
  settings: Settings | undefined,
  position: SheetPosition | undefined,
) {
  const [picked, pick] = useState<{ readonly index: number; readonly at: number | undefined }>()
  const setPicked = (index: number) => pick({ index, at: position?.measure })
  const regions = settings?.regions ?? []
  const measure = position ? tune.measures[position.measure] : undefined
  const under = measure ? regionAt(tune, regions, measure.id) : -1
  // What was picked holds until another measure is selected.
  const wanted = picked && (under < 0 || picked.at === position?.measure) ? picked.index : under
  const active = Math.max(0, Math.min(wanted, regions.length - 1))
  return { active, under, measure, setPicked }
}

type Active = ReturnType<typeof useActiveSection>

/** The sections of a tune that has been cut, one to be picked. */
export function SectionChips({
  tune,
  numbers,
  settings,
  section: { active, setPicked },
  arranger,
}: Pick<Props, 'tune' | 'numbers' | 'settings' | 'section' | 'arranger'>) {
  const { t } = useTranslation()
  const { regions } = settings
  const join = () => {
    setPicked(active - 1)
    void arranger.choose(t('arrange.command.join'), (now) => ({
      regions: tidyRegions(tune, joinRegion(now.regions, active)),
    }))
  }
  if (regions.length < 2) return null
  return (
    <div className={css['section-chips']} role="group" aria-label={t('sections.label')}>
      {regions.map((r, i) => (
        <UnstyledButton
          key={r.from}
          className={i === active ? `${arrangeCss.chip} chosen` : arrangeCss.chip}
          aria-pressed={i === active}
          onClick={() => setPicked(i)}
        >
          <b>{rangeText(tune, numbers, r)}</b> {t(`arrange.styles.${r.style}`)} {r.level}
        </UnstyledButton>
      ))}
      {active > 0 ? (
        <Tooltip label={t('sections.join')}>
          <ActionIcon size={26} variant="default" aria-label={t('sections.join')} onClick={join}>
            <IconArrowMerge size={15} />
          </ActionIcon>
        </Tooltip>
      ) : null}
    </div>
  )
}

/** The pattern of the active section, where it accompanies with one. */
export function SectionPattern({
  tune,
  arranger,
  settings,
  setup,
  harmony,
  section: { active },
}: Pick<Props, 'tune' | 'arranger' | 'settings' | 'section'> & {
  readonly setup: Setup | undefined
  readonly harmony: readonly HarmonySegment[]
}) {
  const { regions } = settings
  const region = regions[active]!
  if (!isAccompaniment(region.style) || region.style === 'shuffle') return null
  return (
    <PatternTools
      style={region.style}
      level={region.level}
      metre={fullMetre(tune, region)}
      setup={setup}
      chord={harmony.find((h) => h.shape)}
      pattern={region.pattern}
      onPattern={(pattern, label) => {
        void arranger.choose(label, (now) => ({
          regions: now.regions.map((r, i) => {
            const { pattern: _, ...rest } = r
            return i !== active ? r : pattern ? { ...rest, pattern } : rest
          }),
        }))
      }}
    />
  )
}

/** Style and level of the active section. */
export function SectionTools({
  arranger,
  settings,
  section,
}: Pick<Props, 'arranger' | 'settings' | 'section'>) {
  const { t } = useTranslation()
  const { active } = section
  const { regions, instrument } = settings
  const region = regions[active]!
  const { strings } = INSTRUMENTS[instrument].instrument
  const refused = refusalOf(region.style, region.level, { strings })
  const choose = (choice: Partial<Region>, label: string) =>
    void arranger.choose(label, (now) => ({ regions: withChoice(now.regions, active, choice) }))
  const { look } = useBenchPage()
  const inStyle =
    (style: Style): SettingsChange =>
    (now) => ({
      regions: now.regions.map((r, i) => {
        if (i !== active) return r
        // Chord melody starts at level 2: the level follows, and the command says so.
        const level = refusalOf(style, r.level, { strings }) === 'chordsAtLevelOne' ? 2 : r.level
        // A pattern is for one style: another begins with its own.
        const { pattern: _, ...rest } = r
        return { ...rest, style, level }
      }),
    })
  const chooseStyle = (style: Style) =>
    void arranger.choose(t('arrange.command.style', { to: t(`arrange.styles.${style}`) }), inStyle(style))
  const lookAtLevel = (level: Level) =>
    look(
      level === region.level ? undefined : (now) => ({ regions: withChoice(now.regions, active, { level }) }),
    )
  const offered = (styles: readonly Style[]) =>
    styles
      .filter((s) => refusalOf(s, 2, { strings }) === undefined || s === region.style)
      .map((s) => ({ value: s, label: t(`arrange.styles.${s}`) }))
  const lacks = STYLES.some((s) => refusalOf(s, 2, { strings }) !== undefined)
  return (
    <>
      <Tooltip
        label={t('sections.lacking')}
        disabled={!lacks}
        events={{ hover: true, focus: true, touch: true }}
      >
        <LookSelect
          size="xs"
          w={142}
          onLook={(v) => look(v === undefined || v === region.style ? undefined : inStyle(v as Style))}
          aria-label={t('arrange.style')}
          value={region.style}
          allowDeselect={false}
          maxDropdownHeight={320}
          onChange={(v) => v !== null && chooseStyle(v as Style)}
          data={[
            { group: t('accompany.solo'), items: offered([...SOLO_STYLES, ...OTHER_TUNE_STYLES]) },
            { group: t('accompany.backing'), items: offered(ACCOMPANIMENTS) },
          ]}
        />
      </Tooltip>
      <SegmentedControl
        size="xs"
        aria-label={t('arrange.level')}
        value={String(region.level)}
        onChange={(v) => {
          look(undefined)
          choose({ level: Number(v) as Level }, t('arrange.command.level', { to: v }))
        }}
        data={LEVELS.map((l) => ({
          value: String(l),
          disabled: refusalOf(region.style, l, { strings }) !== undefined,
          label: (
            <span
              title={t(`arrange.levels.${l}`)}
              onPointerEnter={() => refusalOf(region.style, l, { strings }) === undefined && lookAtLevel(l)}
              onPointerLeave={() => look(undefined)}
            >
              {l === 1 ? (
                t('arrange.levelName', { level: l })
              ) : (
                <>
                  <VisuallyHidden component="span">{t('arrange.levelName', { level: l })}</VisuallyHidden>
                  <span aria-hidden>{l}</span>
                </>
              )}
            </span>
          ),
        }))}
      />
      {refused ? <span className="refused">{t(`sections.refused.${refused}`)}</span> : null}
    </>
  )
}

/** What is chosen less often for the active section: ornaments, feel and end, playing habits, parts that are added. */
export function MoreTools({ tune, numbers, arranger, settings, position, section }: Props) {
  const { t } = useTranslation()
  const { active } = section
  const { regions } = settings
  const region = regions[active]!
  const school = region.school ?? USUAL_SCHOOL
  const own = changes(school) + [region.feel, region.close, region.lastChord].filter(Boolean).length
  const choose = (choice: Partial<Region>, label: string) => {
    void noteHabits(tune, region, { ...region, ...choice }, t('taste.firstName')).catch(() => undefined)
    void arranger.choose(label, (now) => ({ regions: withChoice(now.regions, active, choice) }))
  }
  const { look } = useBenchPage()
  const solo = isSolo(region.style)
  const swings = canSwing({ metre: fullMetre(tune, region) })
  const ends = active === regions.length - 1
  const moreNames = [
    ...(solo ? [t('ornament.button', { what: t(`ornament.short.${ornamentOf(region)}`) })] : []),
    t('parts.title'),
    ...(swings ? [t('feel.label')] : []),
    ...(ends ? [t('feel.end'), t('feel.lastChord')] : []),
    ...(['picking', 'strokes', 'root', 'bassStrings'] as const).map((k) => t(`school.${k}`)),
    ...(isAccompaniment(region.style)
      ? (['runs', 'liftOff'] as const)
      : (['repeats', 'hand', 'harmony'] as const)
    ).map((k) => t(`school.${k}`)),
  ]
  return (
    <Popover width={400} position="bottom-end" shadow="md" withinPortal trapFocus>
      <Popover.Target>
        <Button
          size="compact-xs"
          h={28}
          variant="default"
          leftSection={<IconAdjustments size={16} />}
          {...holds(moreNames)}
        >
          {own === 0 ? t('more.button') : t('more.own', { count: own })}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <ScrollArea.Autosize mah="70vh" type="auto" offsetScrollbars>
          <Group gap={8} mb={10}>
            {solo ? (
              <OrnamentMenu
                value={ornamentOf(region)}
                onChange={(ornament, label) => choose({ ornament }, label)}
              />
            ) : null}
            <PartsMenu
              tune={tune}
              numbers={numbers}
              arranger={arranger}
              position={position}
              instrument={INSTRUMENTS[settings.instrument].instrument}
            />
          </Group>
          <FeelForm
            region={region}
            canSwing={swings}
            ends={ends}
            onRegion={(change, label) =>
              void arranger.choose(label, (now) => ({
                regions: now.regions.map((r, i) => (i === active ? change(r) : r)),
              }))
            }
          />
          <SchoolForm
            school={school}
            accompanies={isAccompaniment(region.style)}
            hasTwoParts={tune.events.some((e) => e.voice === 1 && e.pitch)}
            onLook={(next) =>
              look(next && ((now) => ({ regions: withChoice(now.regions, active, { school: next }) })))
            }
            onSchool={(next, label) => choose({ school: next }, t('arrange.command.school', { to: label }))}
          />
        </ScrollArea.Autosize>
      </Popover.Dropdown>
    </Popover>
  )
}

const keys = Object.keys(USUAL_SCHOOL) as (keyof School)[]

const changes = (school: School) =>
  keys.filter((k) => school[k] !== USUAL_SCHOOL[k]).length +
  [school.picking, school.runs, school.liftOff, school.bassStrings].filter(Boolean).length

/** Metre of a region's first full measure: a pickup says little. */
function fullMetre(tune: TuneDoc, { from, to }: Region): Metre {
  const at = (id: string) => tune.measures.findIndex((m) => m.id === id)
  const own = tune.measures.slice(at(from), at(to) + 1)
  return (own.find((m) => m.length >= m.nominal) ?? own[0] ?? tune.measures[0]!).metre
}

/** Measures of a region as they are numbered on the page. */
function rangeText(tune: TuneDoc, numbers: readonly number[], region: Region): string {
  const at = (id: string) => numbers[tune.measures.findIndex((m) => m.id === id)]!
  const [from, to] = [at(region.from), at(region.to)]
  return from === to ? String(from) : `${from}–${to}`
}
