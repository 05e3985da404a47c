import { Anchor, Group, NumberInput, Select, Textarea } from '@mantine/core'
import { LEVELS, type Level } from '@velvet-porch/core/document'
import { INSTRUMENTS, type InstrumentKind } from '@velvet-porch/core/instrument'
import type { StudentRecord } from '@velvet-porch/core/studio'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import css from './students.module.css'
import { changeStudent, type Student } from '../../state/studio.ts'

/** Who a student is: instrument, level, minutes a day, goals; the hand is set up under Settings. */
export function StudentRecordForm({ student }: { student: Student }) {
  const { t } = useTranslation()
  const { record } = student
  const keep = (part: Partial<StudentRecord>) => void changeStudent(record.id, part)
  return (
    <section aria-labelledby="student-record">
      <h2 id="student-record">{t('studio.about')}</h2>
      <Group align="flex-end" gap="xs">
        <Select
          w={150}
          label={t('studio.instrument')}
          allowDeselect={false}
          value={record.instrument}
          data={(Object.keys(INSTRUMENTS) as InstrumentKind[]).map((value) => ({
            value,
            label: t(`instrument.kinds.${value}`),
          }))}
          onChange={(instrument) => {
            if (instrument) keep({ instrument })
          }}
        />
        <Select
          w={110}
          label={t('studio.levelLabel')}
          allowDeselect={false}
          value={String(record.level)}
          data={LEVELS.map(String)}
          onChange={(level) => keep({ level: Number(level) as Level })}
        />
        <NumberInput
          w={150}
          label={t('studio.minutesADay')}
          min={0}
          max={480}
          value={record.minutesADay}
          onChange={(minutes) =>
            keep({ minutesADay: Math.min(480, Math.max(0, Math.round(Number(minutes)))) })
          }
        />
        <Anchor component={Link} to="/settings" size="sm" mb={8}>
          {t('studio.handUnderSettings')}
        </Anchor>
      </Group>
      <div className={css['studio-texts']}>
        {(['goals', 'notes'] as const).map((field) => (
          <Textarea
            key={field}
            autosize
            minRows={2}
            label={t(`studio.recordText.${field}`)}
            defaultValue={record[field]}
            onBlur={(event) => keep({ [field]: event.currentTarget.value })}
          />
        ))}
      </div>
    </section>
  )
}
