import { ActionIcon, Anchor, Button, Group, Progress, Select, Table } from '@mantine/core'
import { DatePickerInput } from '@mantine/dates'
import { IconX } from '@tabler/icons-react'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { newId } from '../../newId.ts'
import { setPrefs } from '../../state/prefs.ts'

import { changeAssignment, dropAssignment, keepAssignment, type Student } from '../../state/studio.ts'
import { useShelf } from '../../state/useShelf.ts'
import { useVersions } from '../../state/versions.ts'
import { MeasureMap } from './MeasureMap.tsx'
import { useDayWords } from './useDayWords.ts'
import type { StudiedTune } from './useStudies.ts'
import css from './students.module.css'

interface Props {
  readonly student: Student
  readonly studies: readonly StudiedTune[]
  readonly today: string
}

/** The tunes that a student learns: version, how far it is, when it should be ready. */
export function GivenTunes({ student, studies, today }: Props) {
  const { t } = useTranslation()
  const shelf = useShelf()
  const [chosen, setChosen] = useState<string | null>(null)
  const given = new Set(studies.map((s) => s.assignment.tuneId))
  const give = async () => {
    if (chosen === null) return
    await keepAssignment({ id: newId(), studentId: student.hand.id, tuneId: chosen, given: today })
    setChosen(null)
  }
  return (
    <section aria-labelledby="student-tunes">
      <h2 id="student-tunes">{t('studio.tunes')}</h2>
      {studies.length > 0 ? (
        <Table.ScrollContainer minWidth={860}>
          <Table data-testid="given-tunes">
            <Table.Thead>
              <Table.Tr>
                {(['tune', 'version', 'wanted', 'state', 'ready'] as const).map((c) => (
                  <Table.Th key={c}>{t(`studio.given.${c}`)}</Table.Th>
                ))}
                <Table.Td />
              </Table.Tr>
            </Table.Thead>
            <Table.Tbody>
              {studies.map((s) => (
                <Given key={s.assignment.id} studied={s} student={student} today={today} />
              ))}
            </Table.Tbody>
          </Table>
        </Table.ScrollContainer>
      ) : null}
      <Group gap="xs" mt="xs">
        <Select
          w={260}
          searchable
          aria-label={t('studio.giveWhich')}
          placeholder={t('studio.giveWhich')}
          value={chosen}
          onChange={setChosen}
          data={shelf.filter((row) => !given.has(row.id)).map((row) => ({ value: row.id, label: row.title }))}
        />
        <Button variant="default" disabled={chosen === null} onClick={() => void give()}>
          {t('studio.give')}
        </Button>
      </Group>
    </section>
  )
}

function Given({ studied, student, today }: { studied: StudiedTune; student: Student; today: string }) {
  const { t } = useTranslation()
  const { dayText } = useDayWords()
  const { assignment, study, title } = studied
  const versions = useVersions(assignment.tuneId)
  /** Undefined takes a part away. */
  const change = (part: 'versionId' | 'due' | 'learnt', to: string | undefined) =>
    void changeAssignment(assignment.id, ({ [part]: _, ...rest }) =>
      to === undefined ? rest : { ...rest, [part]: to },
    )
  const teach = () => setPrefs({ player: student.hand.id })
  const percent = Math.round(100 * (study?.mastered ?? 0))
  return (
    <Table.Tr>
      <Table.Td>
        <Anchor component={Link} to={`/tunes/${assignment.tuneId}/teach`} onClick={teach} fw={600}>
          {title || t('studio.tuneGone')}
        </Anchor>
        {study ? <MeasureMap measures={study.measures} /> : null}
      </Table.Td>
      <Table.Td>
        <Select
          size="xs"
          w={140}
          aria-label={t('studio.versionOf', { title })}
          allowDeselect={false}
          value={assignment.versionId ?? ''}
          data={[
            { value: '', label: t('studio.bench') },
            ...versions.map((v) => ({ value: v.id, label: v.name })),
          ]}
          onChange={(id) => change('versionId', id || undefined)}
        />
      </Table.Td>
      <Table.Td>
        <DatePickerInput
          size="xs"
          w={130}
          clearable
          aria-label={t('studio.dueOf', { title })}
          placeholder={t('studio.noDay')}
          classNames={{ placeholder: css['studio-no-day']! }}
          clearButtonProps={{ 'aria-label': t('studio.dueClear', { title }) }}
          valueFormat="D MMM"
          value={assignment.due ?? null}
          onChange={(due) => change('due', due ?? undefined)}
        />
      </Table.Td>
      <Table.Td miw={120}>
        {study ? (
          <>
            <Progress value={percent} aria-label={t('studio.masteredOf', { percent })} />
            <span className={css['studio-small']}>{t('studio.masteredOf', { percent })}</span>
          </>
        ) : (
          t('studio.noTab')
        )}
      </Table.Td>
      <Table.Td>
        {assignment.learnt !== undefined ? (
          t('studio.learntOn', { day: dayText(assignment.learnt) })
        ) : study?.readiness ? (
          <>
            {t('studio.likely', { day: dayText(study.readiness.day) })}
            <div className={css['studio-small']}>
              {t('studio.between', {
                early: dayText(study.readiness.early),
                late: dayText(study.readiness.late),
              })}
            </div>
            {assignment.due !== undefined && study.readiness.day > assignment.due ? (
              <div className={css['studio-late']}>{t('studio.late')}</div>
            ) : null}
          </>
        ) : study ? (
          t('studio.ready')
        ) : null}
      </Table.Td>
      <Table.Td>
        <Group gap={4} wrap="nowrap" justify="flex-end">
          <Button
            size="compact-xs"
            variant="default"
            onClick={() => change('learnt', assignment.learnt === undefined ? today : undefined)}
          >
            {t(assignment.learnt === undefined ? 'studio.learnt' : 'studio.again')}
          </Button>
          <ActionIcon
            variant="subtle"
            color="red"
            aria-label={t('studio.takeBack', { title })}
            onClick={() => void dropAssignment(assignment.id)}
          >
            <IconX size={16} />
          </ActionIcon>
        </Group>
      </Table.Td>
    </Table.Tr>
  )
}
