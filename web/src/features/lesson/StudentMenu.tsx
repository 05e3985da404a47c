import { Anchor, Button, Checkbox, Popover, Select, Stack, Text } from '@mantine/core'
import { IconUser } from '@tabler/icons-react'
import { useTranslation } from 'react-i18next'
import { Link } from 'react-router'
import { useLeavingOut } from '../arrange/useAsPlayed.ts'
import { usePlayers } from '../../state/players.ts'
import { setPrefs } from '../../state/prefs.ts'
import { holds } from '../../ui/holds.ts'
import type { Taught } from './useTaught.ts'

/** For whom it is taught: whose hand it is measured for, with which versions, with or without what may be left out. */
export function StudentMenu({ student, own }: Pick<Taught, 'student' | 'own'>) {
  const { t } = useTranslation()
  const players = usePlayers()
  const [leaves, setLeaves] = useLeavingOut()
  return (
    <Popover width={280} position="bottom-end" withinPortal={false}>
      <Popover.Target>
        <Button
          className="student"
          size="compact-sm"
          variant={student ? 'light' : 'default'}
          leftSection={<IconUser size={15} />}
          {...holds([t('teach.student'), t('teach.leaveOut'), t('teach.hands')])}
        >
          {student ? t('teach.for', { name: student.name }) : t('teach.forAnybody')}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <Stack gap={8}>
          <Select
            size="xs"
            label={t('teach.student')}
            value={student?.id ?? ''}
            onChange={(id) => setPrefs({ player: id ?? '' })}
            data={[
              { value: '', label: t('teach.anybody') },
              ...players.map((p) => ({ value: p.id, label: p.name })),
            ]}
            allowDeselect={false}
            comboboxProps={{ withinPortal: false }}
          />
          <Checkbox
            size="xs"
            label={t('teach.leaveOut')}
            checked={leaves}
            onChange={(e) => setLeaves(e.currentTarget.checked)}
          />
          {own.length > 0 ? (
            <Text size="xs">{t('teach.ownVersions', { names: own.map((v) => v.name).join('; ') })}</Text>
          ) : null}
          <Anchor size="xs" component={Link} to="/settings">
            {t('teach.hands')}
          </Anchor>
        </Stack>
      </Popover.Dropdown>
    </Popover>
  )
}
