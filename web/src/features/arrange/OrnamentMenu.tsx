import { Button, Menu } from '@mantine/core'
import { IconTilde } from '@tabler/icons-react'
import { ORNAMENTS, type Ornament } from '@velvet-porch/core/document'
import { useTranslation } from 'react-i18next'

/** How much of a section's melody is ornamented. */
export function OrnamentMenu({
  value,
  onChange,
}: {
  value: Ornament
  onChange: (ornament: Ornament, label: string) => void
}) {
  const { t } = useTranslation()
  return (
    <Menu position="bottom-start" withinPortal={false} shadow="md">
      <Menu.Target>
        <Button size="compact-xs" h={28} variant="default" leftSection={<IconTilde size={15} />}>
          {t('ornament.button', { what: t(`ornament.short.${value}`) })}
        </Button>
      </Menu.Target>
      <Menu.Dropdown>
        {ORNAMENTS.map((o) => (
          <Menu.Item
            key={o}
            onClick={() =>
              o !== value && onChange(o, t('ornament.command', { what: t(`ornament.short.${o}`) }))
            }
          >
            <b>{t(`ornament.short.${o}`)}</b> — {t(`ornament.long.${o}`)}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  )
}
